CREATE TABLE "log" (
	"id" uuid PRIMARY KEY NOT NULL,
	"version" integer DEFAULT 1 NOT NULL,
	"created_at" timestamp (3) with time zone DEFAULT now() NOT NULL,
	"updated_at" timestamp (3) with time zone DEFAULT now() NOT NULL,
	"deleted_at" timestamp (3) with time zone,
	"trial_id" uuid NOT NULL,
	"started_at" timestamp (3) with time zone NOT NULL,
	"series" text DEFAULT '' NOT NULL,
	"source" text DEFAULT '' NOT NULL,
	"note" text DEFAULT '' NOT NULL,
	"times" double precision[] NOT NULL,
	"values" double precision[] NOT NULL,
	"n" integer NOT NULL,
	"span" double precision NOT NULL,
	"mean" double precision NOT NULL,
	"deviation" double precision NOT NULL,
	"energy_mean" double precision NOT NULL,
	"min" double precision NOT NULL,
	"max" double precision NOT NULL,
	CONSTRAINT "log_whole" CHECK ("log"."n" > 0 and cardinality("log"."times") = "log"."n" and cardinality("log"."values") = "log"."n")
);
--> statement-breakpoint
CREATE TABLE "setting" (
	"name" text PRIMARY KEY NOT NULL,
	"value" jsonb NOT NULL,
	"updated_at" timestamp (3) with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
ALTER TABLE "reading" DROP CONSTRAINT "reading_positive";--> statement-breakpoint
ALTER TABLE "photo" ALTER COLUMN "part_id" DROP NOT NULL;--> statement-breakpoint
ALTER TABLE "reading" ALTER COLUMN "volume" DROP NOT NULL;--> statement-breakpoint
ALTER TABLE "reading" ALTER COLUMN "seconds" DROP NOT NULL;--> statement-breakpoint
ALTER TABLE "photo" ADD COLUMN "trial_id" uuid;--> statement-breakpoint
ALTER TABLE "reading" ADD COLUMN "kind" text DEFAULT 'vessel' NOT NULL;--> statement-breakpoint
ALTER TABLE "reading" ADD COLUMN "value" double precision;--> statement-breakpoint
ALTER TABLE "reading" ADD COLUMN "series" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "reading" ADD COLUMN "outcome" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "reading" ADD COLUMN "note" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "reading" ADD COLUMN "source" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "trial" ADD COLUMN "kind" text DEFAULT 'vessel' NOT NULL;--> statement-breakpoint
ALTER TABLE "trial" ADD COLUMN "days_in_use" double precision;--> statement-breakpoint
ALTER TABLE "trial" ADD COLUMN "valve" double precision DEFAULT 1 NOT NULL;--> statement-breakpoint
ALTER TABLE "trial" ADD COLUMN "outlet" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "trial" ADD COLUMN "mains_voltage" double precision;--> statement-breakpoint
ALTER TABLE "trial" ADD COLUMN "setup" jsonb DEFAULT '{}'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "trial" ADD COLUMN "out_reason" text;--> statement-breakpoint
ALTER TABLE "log" ADD CONSTRAINT "log_trial_id_trial_id_fk" FOREIGN KEY ("trial_id") REFERENCES "public"."trial"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "log_of_trial" ON "log" USING btree ("trial_id","started_at");--> statement-breakpoint
ALTER TABLE "photo" ADD CONSTRAINT "photo_trial_id_trial_id_fk" FOREIGN KEY ("trial_id") REFERENCES "public"."trial"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "trial" ADD CONSTRAINT "trial_id_kind" UNIQUE("id","kind");--> statement-breakpoint
ALTER TABLE "reading" ADD CONSTRAINT "reading_kind_of_trial" FOREIGN KEY ("trial_id","kind") REFERENCES "public"."trial"("id","kind") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "photo_of_trial" ON "photo" USING btree ("trial_id");--> statement-breakpoint
ALTER TABLE "photo" ADD CONSTRAINT "photo_of_one" CHECK (num_nonnulls("photo"."part_id", "photo"."trial_id") = 1);--> statement-breakpoint
ALTER TABLE "reading" ADD CONSTRAINT "reading_whole" CHECK (case "reading"."kind"
        when 'vessel' then "reading"."volume" > 0 and "reading"."seconds" >= 0.5
        when 'weighed' then "reading"."value" > 0 and "reading"."seconds" >= 0.5
        when 'meter' then "reading"."value" > 0 and "reading"."seconds" >= 0.5
        when 'meter-check' then "reading"."value" > 0 and "reading"."volume" > 0
        when 'holding' then "reading"."seconds" >= 0 and "reading"."outcome" in ('let-go', 'still')
        when 'prime' then "reading"."seconds" >= 0
        when 'dye' then "reading"."seconds" >= 0 and "reading"."value" >= 0
        else "reading"."value" >= 0 end is true);--> statement-breakpoint
ALTER TABLE "trial" ADD CONSTRAINT "trial_kind" CHECK ("trial"."kind" in ('vessel', 'weighed', 'meter', 'read', 'shut-off', 'meter-check', 'power', 'noise', 'dye', 'holding', 'prime', 'air'));--> statement-breakpoint
ALTER TABLE "trial" ADD CONSTRAINT "trial_valve" CHECK ("trial"."valve" between 0 and 1);