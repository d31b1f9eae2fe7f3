CREATE TABLE "ranking" (
	"id" uuid PRIMARY KEY NOT NULL,
	"state" text DEFAULT 'running' NOT NULL,
	"basis" text NOT NULL,
	"models" integer NOT NULL,
	"created_at" timestamp (3) with time zone DEFAULT now() NOT NULL,
	"finished_at" timestamp (3) with time zone,
	CONSTRAINT "ranking_state" CHECK ("ranking"."state" in ('running', 'done', 'cancelled'))
);
--> statement-breakpoint
CREATE TABLE "ranking_part" (
	"ranking_id" uuid NOT NULL,
	"position" integer NOT NULL,
	"what" text NOT NULL,
	"subjects" jsonb NOT NULL,
	"done_at" timestamp (3) with time zone,
	"worker" text,
	"result" jsonb,
	CONSTRAINT "ranking_part_ranking_id_position_pk" PRIMARY KEY("ranking_id","position"),
	CONSTRAINT "ranking_part_what" CHECK ("ranking_part"."what" in ('models', 'tank'))
);
--> statement-breakpoint
ALTER TABLE "ranking_part" ADD CONSTRAINT "ranking_part_ranking_id_ranking_id_fk" FOREIGN KEY ("ranking_id") REFERENCES "public"."ranking"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE UNIQUE INDEX "ranking_running" ON "ranking" USING btree ("state") WHERE "ranking"."state" = 'running';