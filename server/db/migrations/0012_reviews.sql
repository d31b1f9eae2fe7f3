CREATE TABLE "review" (
	"id" uuid PRIMARY KEY NOT NULL,
	"version" integer DEFAULT 1 NOT NULL,
	"created_at" timestamp (3) with time zone DEFAULT now() NOT NULL,
	"updated_at" timestamp (3) with time zone DEFAULT now() NOT NULL,
	"deleted_at" timestamp (3) with time zone,
	"model_id" uuid NOT NULL,
	"state" text DEFAULT 'draft' NOT NULL,
	"title" text DEFAULT '' NOT NULL,
	"intro" text DEFAULT '' NOT NULL,
	"words" jsonb DEFAULT '{}'::jsonb NOT NULL,
	"buy" text,
	"buy_why" text DEFAULT '' NOT NULL,
	"editions" integer DEFAULT 0 NOT NULL,
	"published_on" date,
	"withdrawn_on" date,
	"withdrawn_why" text DEFAULT '' NOT NULL,
	"taken_on" date NOT NULL,
	"draft" jsonb NOT NULL,
	CONSTRAINT "review_state" CHECK ("review"."state" in ('draft', 'published', 'corrected', 'withdrawn')),
	CONSTRAINT "review_buy" CHECK ("review"."buy" in ('yes', 'no', 'if'))
);
--> statement-breakpoint
CREATE TABLE "review_edition" (
	"review_id" uuid NOT NULL,
	"number" integer NOT NULL,
	"published_on" date NOT NULL,
	"erratum" jsonb,
	"words" jsonb NOT NULL,
	"snapshot" jsonb NOT NULL,
	CONSTRAINT "review_edition_review_id_number_pk" PRIMARY KEY("review_id","number")
);
--> statement-breakpoint
CREATE TABLE "review_photo" (
	"review_id" uuid NOT NULL,
	"photo_id" uuid NOT NULL,
	"full" "bytea" NOT NULL,
	CONSTRAINT "review_photo_review_id_photo_id_pk" PRIMARY KEY("review_id","photo_id")
);
--> statement-breakpoint
CREATE TABLE "review_share" (
	"id" uuid PRIMARY KEY NOT NULL,
	"review_id" uuid NOT NULL,
	"label" text DEFAULT '' NOT NULL,
	"secret_hash" text NOT NULL,
	"created_at" timestamp (3) with time zone DEFAULT now() NOT NULL,
	"expires_on" date,
	"revoked_at" timestamp (3) with time zone,
	"readings" integer DEFAULT 0 NOT NULL,
	CONSTRAINT "review_share_secret_hash_unique" UNIQUE("secret_hash")
);
--> statement-breakpoint
ALTER TABLE "specimen" ADD COLUMN "disclosure" jsonb DEFAULT '{"paid":null,"signed":null,"affiliate":null,"free":null,"representative":null,"previewed":null}'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "review" ADD CONSTRAINT "review_model_id_model_id_fk" FOREIGN KEY ("model_id") REFERENCES "public"."model"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "review_edition" ADD CONSTRAINT "review_edition_review_id_review_id_fk" FOREIGN KEY ("review_id") REFERENCES "public"."review"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "review_photo" ADD CONSTRAINT "review_photo_review_id_review_id_fk" FOREIGN KEY ("review_id") REFERENCES "public"."review"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "review_share" ADD CONSTRAINT "review_share_review_id_review_id_fk" FOREIGN KEY ("review_id") REFERENCES "public"."review"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "review_of_model" ON "review" USING btree ("model_id");--> statement-breakpoint
CREATE INDEX "review_share_of" ON "review_share" USING btree ("review_id");
--> statement-breakpoint
CREATE FUNCTION "stays_as_said"() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
	RAISE EXCEPTION 'a published edition is never changed' USING ERRCODE = '23001';
END $$;
--> statement-breakpoint
CREATE TRIGGER stays_as_said BEFORE UPDATE ON "review_edition" FOR EACH ROW EXECUTE FUNCTION stays_as_said();
--> statement-breakpoint
CREATE TRIGGER stays_as_said BEFORE UPDATE ON "review_photo" FOR EACH ROW EXECUTE FUNCTION stays_as_said();
--> statement-breakpoint
CREATE TRIGGER touch_on_insert AFTER INSERT ON "review" REFERENCING NEW TABLE AS written FOR EACH STATEMENT EXECUTE FUNCTION touched_list('reviews');
--> statement-breakpoint
CREATE TRIGGER touch_on_update AFTER UPDATE ON "review" REFERENCING NEW TABLE AS written FOR EACH STATEMENT EXECUTE FUNCTION touched_list('reviews');
