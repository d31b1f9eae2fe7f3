CREATE TABLE "account" (
	"id" uuid PRIMARY KEY NOT NULL,
	"name" text NOT NULL,
	"role" text NOT NULL,
	"password_hash" text,
	"created_at" timestamp (3) with time zone DEFAULT now() NOT NULL,
	"removed_at" timestamp (3) with time zone,
	CONSTRAINT "account_role" CHECK ("account"."role" in ('owner', 'editor', 'reader'))
);
--> statement-breakpoint
CREATE TABLE "pass" (
	"id" uuid PRIMARY KEY NOT NULL,
	"account_id" uuid NOT NULL,
	"purpose" text NOT NULL,
	"secret_hash" text NOT NULL,
	"created_at" timestamp (3) with time zone DEFAULT now() NOT NULL,
	"ends_at" timestamp (3) with time zone NOT NULL,
	"used_at" timestamp (3) with time zone,
	CONSTRAINT "pass_secret_hash_unique" UNIQUE("secret_hash")
);
--> statement-breakpoint
CREATE TABLE "row_change" (
	"id" bigint PRIMARY KEY GENERATED ALWAYS AS IDENTITY (sequence name "row_change_id_seq" INCREMENT BY 1 MINVALUE 1 MAXVALUE 9223372036854775807 START WITH 1 CACHE 1),
	"at" timestamp (3) with time zone DEFAULT now() NOT NULL,
	"who" uuid,
	"who_name" text DEFAULT '' NOT NULL,
	"action" text NOT NULL,
	"resource" text NOT NULL,
	"row_id" uuid NOT NULL,
	"model_id" uuid,
	"name" text DEFAULT '' NOT NULL,
	"before" jsonb DEFAULT '{}'::jsonb NOT NULL,
	"after" jsonb DEFAULT '{}'::jsonb NOT NULL,
	"undoes" bigint,
	CONSTRAINT "row_change_action" CHECK ("row_change"."action" in ('made', 'changed', 'deleted', 'restored'))
);
--> statement-breakpoint
CREATE TABLE "session" (
	"id" uuid PRIMARY KEY NOT NULL,
	"account_id" uuid NOT NULL,
	"secret_hash" text NOT NULL,
	"created_at" timestamp (3) with time zone DEFAULT now() NOT NULL,
	"seen_at" timestamp (3) with time zone DEFAULT now() NOT NULL,
	"ends_at" timestamp (3) with time zone NOT NULL,
	"address" text NOT NULL,
	"agent" text DEFAULT '' NOT NULL,
	CONSTRAINT "session_secret_hash_unique" UNIQUE("secret_hash")
);
--> statement-breakpoint
CREATE TABLE "sign_in_try" (
	"key" varchar(255) PRIMARY KEY NOT NULL,
	"points" integer DEFAULT 0 NOT NULL,
	"expire" bigint
);
--> statement-breakpoint
ALTER TABLE "pass" ADD CONSTRAINT "pass_account_id_account_id_fk" FOREIGN KEY ("account_id") REFERENCES "public"."account"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "session" ADD CONSTRAINT "session_account_id_account_id_fk" FOREIGN KEY ("account_id") REFERENCES "public"."account"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE UNIQUE INDEX "account_name" ON "account" USING btree (lower("name")) WHERE "account"."removed_at" is null;--> statement-breakpoint
CREATE INDEX "pass_of_account" ON "pass" USING btree ("account_id");--> statement-breakpoint
CREATE INDEX "row_change_of_model" ON "row_change" USING btree ("model_id","id");--> statement-breakpoint
CREATE INDEX "row_change_of_row" ON "row_change" USING btree ("row_id","id");--> statement-breakpoint
CREATE INDEX "row_change_undoes" ON "row_change" USING btree ("undoes");--> statement-breakpoint
CREATE INDEX "session_of_account" ON "session" USING btree ("account_id");--> statement-breakpoint
CREATE FUNCTION "history_stays"() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
	RAISE EXCEPTION 'what was done is never written anew' USING ERRCODE = '23001';
END $$;
--> statement-breakpoint
CREATE TRIGGER history_stays BEFORE UPDATE OR DELETE ON "row_change" FOR EACH ROW EXECUTE FUNCTION history_stays();
--> statement-breakpoint
CREATE FUNCTION "session_ended"() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
	PERFORM pg_notify('record', json_build_object('session', OLD.id)::text);
	RETURN NULL;
END $$;
--> statement-breakpoint
CREATE TRIGGER session_ended AFTER DELETE ON "session" FOR EACH ROW EXECUTE FUNCTION session_ended();
--> statement-breakpoint
CREATE TRIGGER touch_on_insert AFTER INSERT ON "account" REFERENCING NEW TABLE AS written FOR EACH STATEMENT EXECUTE FUNCTION touched_list('people');
--> statement-breakpoint
CREATE TRIGGER touch_on_update AFTER UPDATE ON "account" REFERENCING NEW TABLE AS written FOR EACH STATEMENT EXECUTE FUNCTION touched_list('people');
