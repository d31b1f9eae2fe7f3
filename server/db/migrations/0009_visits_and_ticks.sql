CREATE TABLE "tick" (
	"id" uuid PRIMARY KEY NOT NULL,
	"version" integer DEFAULT 1 NOT NULL,
	"created_at" timestamp (3) with time zone DEFAULT now() NOT NULL,
	"updated_at" timestamp (3) with time zone DEFAULT now() NOT NULL,
	"deleted_at" timestamp (3) with time zone,
	"tank_id" uuid NOT NULL,
	"filter_id" text NOT NULL,
	"task" text NOT NULL,
	"due" date NOT NULL,
	"state" text DEFAULT 'done' NOT NULL,
	"on" date NOT NULL,
	"minutes" double precision,
	"note" text DEFAULT '' NOT NULL,
	CONSTRAINT "tick_task" CHECK ("tick"."task" in ('prefilter', 'open', 'impeller', 'fine', 'pads', 'sponge', 'carbon', 'resin', 'nitrate', 'lamp', 'rings')),
	CONSTRAINT "tick_state" CHECK ("tick"."state" in ('done', 'skipped', 'moved'))
);
--> statement-breakpoint
CREATE TABLE "visit" (
	"id" uuid PRIMARY KEY NOT NULL,
	"version" integer DEFAULT 1 NOT NULL,
	"created_at" timestamp (3) with time zone DEFAULT now() NOT NULL,
	"updated_at" timestamp (3) with time zone DEFAULT now() NOT NULL,
	"deleted_at" timestamp (3) with time zone,
	"model_id" uuid NOT NULL,
	"tank_id" uuid,
	"specimen_id" uuid,
	"fill_id" uuid,
	"on" date NOT NULL,
	"stage" text DEFAULT 'visit' NOT NULL,
	"seeping" jsonb,
	"runs_before" jsonb DEFAULT '[]'::jsonb NOT NULL,
	"noise" double precision,
	"watts" double precision,
	"holding" text,
	"dirt" jsonb DEFAULT '{}'::jsonb NOT NULL,
	"parts" jsonb DEFAULT '{}'::jsonb NOT NULL,
	"hoses" text,
	"ammonia" double precision,
	"nitrite" double precision,
	"nitrate" double precision,
	"binder" boolean DEFAULT false NOT NULL,
	"clarity" text,
	"cleaned" jsonb DEFAULT '[]'::jsonb NOT NULL,
	"failed" jsonb DEFAULT '[]'::jsonb NOT NULL,
	"minutes" double precision,
	"runs_after" jsonb DEFAULT '[]'::jsonb NOT NULL,
	"note" text DEFAULT '' NOT NULL,
	"typed" jsonb DEFAULT '{}'::jsonb NOT NULL,
	CONSTRAINT "visit_stage" CHECK ("visit"."stage" in ('set-up', 'visit')),
	CONSTRAINT "visit_holding" CHECK ("visit"."holding" in ('all', 'some', 'none')),
	CONSTRAINT "visit_hoses" CHECK ("visit"."hoses" in ('clean', 'slime', 'half-closed')),
	CONSTRAINT "visit_clarity" CHECK ("visit"."clarity" in ('clear', 'hazy', 'cloudy'))
);
--> statement-breakpoint
ALTER TABLE "photo" DROP CONSTRAINT "photo_of_one";--> statement-breakpoint
ALTER TABLE "house_rule" ADD COLUMN "upkeep" jsonb DEFAULT '{"by":"date","fall":0.3,"rinse":"tank-water","visits":[1,2,14,30,90,180,365,730],"every":{}}'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "model" ADD COLUMN "errata" jsonb DEFAULT '[]'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "photo" ADD COLUMN "visit_id" uuid;--> statement-breakpoint
ALTER TABLE "tick" ADD CONSTRAINT "tick_tank_id_tank_id_fk" FOREIGN KEY ("tank_id") REFERENCES "public"."tank"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "visit" ADD CONSTRAINT "visit_model_id_model_id_fk" FOREIGN KEY ("model_id") REFERENCES "public"."model"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "visit" ADD CONSTRAINT "visit_tank_id_tank_id_fk" FOREIGN KEY ("tank_id") REFERENCES "public"."tank"("id") ON DELETE set null ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "visit" ADD CONSTRAINT "visit_specimen_id_specimen_id_fk" FOREIGN KEY ("specimen_id") REFERENCES "public"."specimen"("id") ON DELETE set null ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "visit" ADD CONSTRAINT "visit_fill_id_fill_id_fk" FOREIGN KEY ("fill_id") REFERENCES "public"."fill"("id") ON DELETE set null ON UPDATE no action;--> statement-breakpoint
CREATE UNIQUE INDEX "tick_once" ON "tick" USING btree ("tank_id","filter_id","task","due");--> statement-breakpoint
CREATE INDEX "visit_of_model" ON "visit" USING btree ("model_id","on");--> statement-breakpoint
ALTER TABLE "photo" ADD CONSTRAINT "photo_visit_id_visit_id_fk" FOREIGN KEY ("visit_id") REFERENCES "public"."visit"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "photo_of_visit" ON "photo" USING btree ("visit_id");--> statement-breakpoint
ALTER TABLE "photo" ADD CONSTRAINT "photo_of_one" CHECK (num_nonnulls("photo"."part_id", "photo"."trial_id", "photo"."visit_id") = 1);--> statement-breakpoint
CREATE OR REPLACE FUNCTION "touched_photo"() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
	PERFORM touch_shelf(ARRAY(SELECT coalesce(p.model_id, t.model_id, v.model_id) FROM written w
		LEFT JOIN part p ON p.id = w.part_id LEFT JOIN trial t ON t.id = w.trial_id
		LEFT JOIN visit v ON v.id = w.visit_id));
	RETURN NULL;
END $$;
--> statement-breakpoint
CREATE TRIGGER touch_on_insert AFTER INSERT ON "visit" REFERENCING NEW TABLE AS written FOR EACH STATEMENT EXECUTE FUNCTION touched_directly();
--> statement-breakpoint
CREATE TRIGGER touch_on_update AFTER UPDATE ON "visit" REFERENCING NEW TABLE AS written FOR EACH STATEMENT EXECUTE FUNCTION touched_directly();
--> statement-breakpoint
CREATE TRIGGER touch_on_insert AFTER INSERT ON "tick" REFERENCING NEW TABLE AS written FOR EACH STATEMENT EXECUTE FUNCTION touched_list('ticks');
--> statement-breakpoint
CREATE TRIGGER touch_on_update AFTER UPDATE ON "tick" REFERENCING NEW TABLE AS written FOR EACH STATEMENT EXECUTE FUNCTION touched_list('ticks');
