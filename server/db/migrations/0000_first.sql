CREATE TABLE "claim" (
	"id" uuid PRIMARY KEY NOT NULL,
	"version" integer DEFAULT 1 NOT NULL,
	"created_at" timestamp (3) with time zone DEFAULT now() NOT NULL,
	"updated_at" timestamp (3) with time zone DEFAULT now() NOT NULL,
	"deleted_at" timestamp (3) with time zone,
	"model_id" uuid NOT NULL,
	"quantity" text NOT NULL,
	"value" double precision,
	"words" text,
	"amount_minor" integer,
	"currency" text,
	"qualifier" text DEFAULT '' NOT NULL,
	"mains_frequency" integer,
	"printed_on" text DEFAULT '' NOT NULL,
	"typed" jsonb DEFAULT '{}'::jsonb NOT NULL,
	CONSTRAINT "claim_value" CHECK ("claim"."value" >= 0),
	CONSTRAINT "claim_money" CHECK (("claim"."amount_minor" is null) = ("claim"."currency" is null))
);
--> statement-breakpoint
CREATE TABLE "hookup" (
	"id" uuid PRIMARY KEY NOT NULL,
	"version" integer DEFAULT 1 NOT NULL,
	"created_at" timestamp (3) with time zone DEFAULT now() NOT NULL,
	"updated_at" timestamp (3) with time zone DEFAULT now() NOT NULL,
	"deleted_at" timestamp (3) with time zone,
	"model_id" uuid NOT NULL,
	"name" text NOT NULL,
	"outlet_above_water" double precision DEFAULT -0.05 NOT NULL,
	"source_below_water" double precision DEFAULT 0 NOT NULL,
	"body_below_water" double precision DEFAULT 0 NOT NULL,
	"typed" jsonb DEFAULT '{}'::jsonb NOT NULL,
	CONSTRAINT "hookup_source" CHECK ("hookup"."source_below_water" >= 0)
);
--> statement-breakpoint
CREATE TABLE "idempotency_key" (
	"key" uuid PRIMARY KEY NOT NULL,
	"route" text NOT NULL,
	"request_hash" text NOT NULL,
	"status" integer NOT NULL,
	"answer" jsonb NOT NULL,
	"created_at" timestamp (3) with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "model" (
	"id" uuid PRIMARY KEY NOT NULL,
	"version" integer DEFAULT 1 NOT NULL,
	"created_at" timestamp (3) with time zone DEFAULT now() NOT NULL,
	"updated_at" timestamp (3) with time zone DEFAULT now() NOT NULL,
	"deleted_at" timestamp (3) with time zone,
	"maker" text NOT NULL,
	"name" text NOT NULL,
	"kind" text NOT NULL,
	"mains_frequency" integer DEFAULT 50 NOT NULL,
	"note" text DEFAULT '' NOT NULL,
	CONSTRAINT "model_kind" CHECK ("model"."kind" in ('canister','hang-on-back','internal','motor-sponge','air-sponge','air-box','fluidised','sump')),
	CONSTRAINT "model_mains" CHECK ("model"."mains_frequency" in (50, 60)),
	CONSTRAINT "model_named" CHECK (length(trim("model"."name")) > 0 and length(trim("model"."maker")) > 0)
);
--> statement-breakpoint
CREATE TABLE "reading" (
	"id" uuid PRIMARY KEY NOT NULL,
	"version" integer DEFAULT 1 NOT NULL,
	"created_at" timestamp (3) with time zone DEFAULT now() NOT NULL,
	"updated_at" timestamp (3) with time zone DEFAULT now() NOT NULL,
	"deleted_at" timestamp (3) with time zone,
	"trial_id" uuid NOT NULL,
	"taken_at" timestamp (3) with time zone NOT NULL,
	"volume" double precision NOT NULL,
	"seconds" double precision NOT NULL,
	CONSTRAINT "reading_positive" CHECK ("reading"."volume" > 0 and "reading"."seconds" >= 0.5)
);
--> statement-breakpoint
CREATE TABLE "segment" (
	"hookup_id" uuid NOT NULL,
	"position" integer NOT NULL,
	"id" text NOT NULL,
	"kind" text NOT NULL,
	"label" text NOT NULL,
	"length" double precision,
	"diameter" double precision,
	"roughness" double precision,
	"loss_coefficient" double precision,
	"count" integer,
	"holes" integer,
	"hole_diameter" double precision,
	"discharge_coefficient" double precision,
	CONSTRAINT "segment_whole" CHECK (("segment"."kind" = 'hose' and "segment"."length" >= 0 and "segment"."diameter" > 0 and "segment"."roughness" >= 0)
       or ("segment"."kind" = 'fitting' and "segment"."loss_coefficient" >= 0 and "segment"."diameter" > 0 and "segment"."count" >= 0)
       or ("segment"."kind" = 'spray-bar' and "segment"."holes" > 0 and "segment"."hole_diameter" > 0 and "segment"."discharge_coefficient" > 0))
);
--> statement-breakpoint
CREATE TABLE "specimen" (
	"id" uuid PRIMARY KEY NOT NULL,
	"version" integer DEFAULT 1 NOT NULL,
	"created_at" timestamp (3) with time zone DEFAULT now() NOT NULL,
	"updated_at" timestamp (3) with time zone DEFAULT now() NOT NULL,
	"deleted_at" timestamp (3) with time zone,
	"model_id" uuid NOT NULL,
	"label" text DEFAULT '' NOT NULL,
	"obtained" text DEFAULT 'bought' NOT NULL,
	"obtained_on" date,
	"media_mass" double precision,
	"note" text DEFAULT '' NOT NULL,
	"typed" jsonb DEFAULT '{}'::jsonb NOT NULL,
	CONSTRAINT "specimen_obtained" CHECK ("specimen"."obtained" in ('bought','loaned','given','second-hand')),
	CONSTRAINT "specimen_media" CHECK ("specimen"."media_mass" >= 0)
);
--> statement-breakpoint
CREATE TABLE "stock_class" (
	"id" text PRIMARY KEY NOT NULL,
	"position" integer NOT NULL,
	"label" text NOT NULL,
	"min_turnover" double precision NOT NULL,
	"max_turnover" double precision NOT NULL,
	"litres_per_kilogram" double precision NOT NULL,
	"oversizing" double precision NOT NULL,
	"source" text NOT NULL
);
--> statement-breakpoint
CREATE TABLE "tank" (
	"id" uuid PRIMARY KEY NOT NULL,
	"version" integer DEFAULT 1 NOT NULL,
	"created_at" timestamp (3) with time zone DEFAULT now() NOT NULL,
	"updated_at" timestamp (3) with time zone DEFAULT now() NOT NULL,
	"deleted_at" timestamp (3) with time zone,
	"name" text NOT NULL,
	"place" text DEFAULT '' NOT NULL,
	"shape" text NOT NULL,
	"length" double precision NOT NULL,
	"width" double precision NOT NULL,
	"bow_width" double precision NOT NULL,
	"diameter" double precision NOT NULL,
	"side" double precision NOT NULL,
	"end_panel" double precision NOT NULL,
	"front" text NOT NULL,
	"height" double precision NOT NULL,
	"water_level" double precision NOT NULL,
	"substrate_depth" double precision NOT NULL,
	"substrate_porosity" double precision NOT NULL,
	"decor_volume" double precision NOT NULL,
	"stock_class_id" text NOT NULL,
	"note" text DEFAULT '' NOT NULL,
	"typed" jsonb DEFAULT '{}'::jsonb NOT NULL,
	CONSTRAINT "tank_shape" CHECK ("tank"."shape" in ('box','cylinder','bow-front','corner')),
	CONSTRAINT "tank_level" CHECK ("tank"."water_level" > 0 and "tank"."water_level" <= "tank"."height"),
	CONSTRAINT "tank_substrate" CHECK ("tank"."substrate_depth" >= 0 and "tank"."substrate_depth" < "tank"."water_level")
);
--> statement-breakpoint
CREATE TABLE "trial" (
	"id" uuid PRIMARY KEY NOT NULL,
	"version" integer DEFAULT 1 NOT NULL,
	"created_at" timestamp (3) with time zone DEFAULT now() NOT NULL,
	"updated_at" timestamp (3) with time zone DEFAULT now() NOT NULL,
	"deleted_at" timestamp (3) with time zone,
	"model_id" uuid NOT NULL,
	"specimen_id" uuid,
	"hookup_id" uuid,
	"state" text NOT NULL,
	"lift" double precision NOT NULL,
	"water_temperature" double precision NOT NULL,
	"mains_frequency" integer NOT NULL,
	"vessel_volume" double precision NOT NULL,
	"vessel_uncertainty" double precision NOT NULL,
	"clock_resolution" double precision NOT NULL,
	"reaction" double precision NOT NULL,
	"note" text DEFAULT '' NOT NULL,
	"typed" jsonb DEFAULT '{}'::jsonb NOT NULL,
	CONSTRAINT "trial_state" CHECK ("trial"."state" in ('empty','as-shipped','proposed','dirty')),
	CONSTRAINT "trial_mains" CHECK ("trial"."mains_frequency" in (50, 60)),
	CONSTRAINT "trial_vessel" CHECK ("trial"."vessel_volume" > 0)
);
--> statement-breakpoint
ALTER TABLE "claim" ADD CONSTRAINT "claim_model_id_model_id_fk" FOREIGN KEY ("model_id") REFERENCES "public"."model"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "hookup" ADD CONSTRAINT "hookup_model_id_model_id_fk" FOREIGN KEY ("model_id") REFERENCES "public"."model"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "reading" ADD CONSTRAINT "reading_trial_id_trial_id_fk" FOREIGN KEY ("trial_id") REFERENCES "public"."trial"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "segment" ADD CONSTRAINT "segment_hookup_id_hookup_id_fk" FOREIGN KEY ("hookup_id") REFERENCES "public"."hookup"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "specimen" ADD CONSTRAINT "specimen_model_id_model_id_fk" FOREIGN KEY ("model_id") REFERENCES "public"."model"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "tank" ADD CONSTRAINT "tank_stock_class_id_stock_class_id_fk" FOREIGN KEY ("stock_class_id") REFERENCES "public"."stock_class"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "trial" ADD CONSTRAINT "trial_model_id_model_id_fk" FOREIGN KEY ("model_id") REFERENCES "public"."model"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "trial" ADD CONSTRAINT "trial_specimen_id_specimen_id_fk" FOREIGN KEY ("specimen_id") REFERENCES "public"."specimen"("id") ON DELETE set null ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "trial" ADD CONSTRAINT "trial_hookup_id_hookup_id_fk" FOREIGN KEY ("hookup_id") REFERENCES "public"."hookup"("id") ON DELETE set null ON UPDATE no action;--> statement-breakpoint
CREATE UNIQUE INDEX "claim_once" ON "claim" USING btree ("model_id","quantity",coalesce("mains_frequency", 0)) WHERE "claim"."deleted_at" is null;--> statement-breakpoint
CREATE INDEX "hookup_of_model" ON "hookup" USING btree ("model_id");--> statement-breakpoint
CREATE UNIQUE INDEX "model_maker_name" ON "model" USING btree (lower("maker"),lower("name")) WHERE "model"."deleted_at" is null;--> statement-breakpoint
CREATE INDEX "model_by_name" ON "model" USING btree (lower("name"),"id");--> statement-breakpoint
CREATE INDEX "model_by_updated" ON "model" USING btree ("updated_at","id");--> statement-breakpoint
CREATE INDEX "reading_of_trial" ON "reading" USING btree ("trial_id","taken_at");--> statement-breakpoint
CREATE UNIQUE INDEX "segment_place" ON "segment" USING btree ("hookup_id","position");--> statement-breakpoint
CREATE UNIQUE INDEX "segment_id" ON "segment" USING btree ("hookup_id","id");--> statement-breakpoint
CREATE INDEX "specimen_of_model" ON "specimen" USING btree ("model_id");--> statement-breakpoint
CREATE INDEX "tank_by_name" ON "tank" USING btree (lower("name"),"id");--> statement-breakpoint
CREATE INDEX "trial_of_model" ON "trial" USING btree ("model_id");