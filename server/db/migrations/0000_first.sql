CREATE TABLE "body" (
	"id" uuid PRIMARY KEY NOT NULL,
	"version" integer DEFAULT 1 NOT NULL,
	"created_at" timestamp (3) with time zone DEFAULT now() NOT NULL,
	"updated_at" timestamp (3) with time zone DEFAULT now() NOT NULL,
	"deleted_at" timestamp (3) with time zone,
	"model_id" uuid NOT NULL,
	"outer_width" double precision NOT NULL,
	"outer_depth" double precision NOT NULL,
	"outer_height" double precision NOT NULL,
	"overhang" double precision,
	"height_with_hoses" double precision,
	"water_fill" double precision,
	"empty_mass" double precision,
	"full_mass" double precision,
	"typed" jsonb DEFAULT '{}'::jsonb NOT NULL,
	CONSTRAINT "body_sizes" CHECK ("body"."outer_width" > 0 and "body"."outer_depth" > 0 and "body"."outer_height" > 0),
	CONSTRAINT "body_masses" CHECK ("body"."empty_mass" <= "body"."full_mass")
);
--> statement-breakpoint
CREATE TABLE "chamber" (
	"id" uuid PRIMARY KEY NOT NULL,
	"version" integer DEFAULT 1 NOT NULL,
	"created_at" timestamp (3) with time zone DEFAULT now() NOT NULL,
	"updated_at" timestamp (3) with time zone DEFAULT now() NOT NULL,
	"deleted_at" timestamp (3) with time zone,
	"model_id" uuid NOT NULL,
	"position" double precision NOT NULL,
	"name" text NOT NULL,
	"role" text NOT NULL,
	"shape" text NOT NULL,
	"width" double precision NOT NULL,
	"depth" double precision NOT NULL,
	"height" double precision NOT NULL,
	"diameter" double precision NOT NULL,
	"inner_diameter" double precision NOT NULL,
	"top_width" double precision NOT NULL,
	"top_depth" double precision NOT NULL,
	"top_diameter" double precision NOT NULL,
	"low_height" double precision NOT NULL,
	"volume" double precision NOT NULL,
	"x" double precision NOT NULL,
	"y" double precision NOT NULL,
	"usable_height" double precision,
	"rim" double precision,
	"perforated" double precision,
	"displaced" double precision,
	"use" text NOT NULL,
	"way" text,
	"beside" boolean,
	"overflow_sill" double precision,
	"wall_gap" double precision,
	"measured" boolean DEFAULT false NOT NULL,
	"typed" jsonb DEFAULT '{}'::jsonb NOT NULL,
	CONSTRAINT "chamber_way" CHECK ("chamber"."way" in ('up', 'down', 'across', 'inward')),
	CONSTRAINT "chamber_gaps" CHECK ("chamber"."overflow_sill" > 0 and "chamber"."wall_gap" > 0)
);
--> statement-breakpoint
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
CREATE TABLE "content_item" (
	"id" uuid PRIMARY KEY NOT NULL,
	"version" integer DEFAULT 1 NOT NULL,
	"created_at" timestamp (3) with time zone DEFAULT now() NOT NULL,
	"updated_at" timestamp (3) with time zone DEFAULT now() NOT NULL,
	"deleted_at" timestamp (3) with time zone,
	"model_id" uuid NOT NULL,
	"position" double precision DEFAULT 0 NOT NULL,
	"name" text NOT NULL,
	"found" text DEFAULT 'present' NOT NULL,
	"note" text DEFAULT '' NOT NULL,
	CONSTRAINT "content_found" CHECK ("content_item"."found" in ('present', 'missing', 'extra', 'damaged'))
);
--> statement-breakpoint
CREATE TABLE "fill" (
	"id" uuid PRIMARY KEY NOT NULL,
	"version" integer DEFAULT 1 NOT NULL,
	"created_at" timestamp (3) with time zone DEFAULT now() NOT NULL,
	"updated_at" timestamp (3) with time zone DEFAULT now() NOT NULL,
	"deleted_at" timestamp (3) with time zone,
	"model_id" uuid NOT NULL,
	"name" text NOT NULL,
	"basis" text DEFAULT 'variant' NOT NULL,
	"note" text DEFAULT '' NOT NULL,
	CONSTRAINT "fill_basis" CHECK ("fill"."basis" in ('as-shipped', 'proposed', 'variant'))
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
	"fitted" jsonb DEFAULT '{}'::jsonb NOT NULL,
	"typed" jsonb DEFAULT '{}'::jsonb NOT NULL,
	CONSTRAINT "hookup_source" CHECK ("hookup"."source_below_water" >= 0)
);
--> statement-breakpoint
CREATE TABLE "house_rule" (
	"id" uuid PRIMARY KEY NOT NULL,
	"version" integer DEFAULT 1 NOT NULL,
	"created_at" timestamp (3) with time zone DEFAULT now() NOT NULL,
	"updated_at" timestamp (3) with time zone DEFAULT now() NOT NULL,
	"deleted_at" timestamp (3) with time zone,
	"shipped" boolean DEFAULT false NOT NULL,
	"name" text NOT NULL,
	"school" text NOT NULL,
	"reasoning" text DEFAULT '' NOT NULL,
	"chemical" text NOT NULL,
	"rules" jsonb DEFAULT '{}'::jsonb NOT NULL,
	"chosen" boolean DEFAULT false NOT NULL,
	CONSTRAINT "house_rule_school" CHECK ("house_rule"."school" in ('strain-first', 'polish-last', 'prefilter-low')),
	CONSTRAINT "house_rule_chemical" CHECK ("house_rule"."chemical" in ('none', 'last', 'after-straining'))
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
CREATE TABLE "layer" (
	"fill_id" uuid NOT NULL,
	"position" integer NOT NULL,
	"id" text NOT NULL,
	"chamber_id" uuid NOT NULL,
	"medium_id" uuid NOT NULL,
	"measure" text NOT NULL,
	"amount" double precision NOT NULL,
	"bagged" boolean NOT NULL,
	"gap" double precision NOT NULL,
	"crossed" boolean NOT NULL,
	"sealed" boolean NOT NULL,
	"fouled" double precision NOT NULL,
	CONSTRAINT "layer_measure" CHECK ("layer"."measure" in ('height', 'volume', 'mass', 'packs')),
	CONSTRAINT "layer_amount" CHECK ("layer"."amount" > 0 and "layer"."gap" >= 0 and "layer"."fouled" >= 0 and "layer"."fouled" < 1)
);
--> statement-breakpoint
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
CREATE TABLE "medium" (
	"id" uuid PRIMARY KEY NOT NULL,
	"version" integer DEFAULT 1 NOT NULL,
	"created_at" timestamp (3) with time zone DEFAULT now() NOT NULL,
	"updated_at" timestamp (3) with time zone DEFAULT now() NOT NULL,
	"deleted_at" timestamp (3) with time zone,
	"generic" boolean DEFAULT false NOT NULL,
	"name" text NOT NULL,
	"form" text NOT NULL,
	"job" text NOT NULL,
	"pores_per_inch" double precision,
	"grain" double precision,
	"fibre" double precision,
	"solidity" double precision,
	"voidage" double precision,
	"bulk_density" double precision NOT NULL,
	"wet_density" double precision,
	"permeability" double precision,
	"permeability_low" double precision,
	"permeability_high" double precision,
	"inertia" double precision,
	"geometric_surface" double precision,
	"effective_surface" double precision,
	"claimed_surface" double precision,
	"pack_volume" double precision,
	"pack_mass" double precision,
	"sheet_thickness" double precision,
	"price_minor" integer,
	"currency" text,
	"priced_on" date,
	"life_days" double precision,
	"source" text DEFAULT '' NOT NULL,
	"note" text DEFAULT '' NOT NULL,
	"typed" jsonb DEFAULT '{}'::jsonb NOT NULL,
	CONSTRAINT "medium_form" CHECK ("medium"."form" in ('foam', 'pad', 'floss', 'rings', 'spheres', 'gravel', 'sintered', 'moving', 'cartridge', 'carbon', 'resin', 'coral', 'contactor')),
	CONSTRAINT "medium_job" CHECK ("medium"."job" in ('coarse', 'medium', 'fine', 'biological', 'chemical')),
	CONSTRAINT "medium_permeability" CHECK ("medium"."permeability" > 0),
	CONSTRAINT "medium_price" CHECK (("medium"."price_minor" is null) = ("medium"."currency" is null))
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
	"house_rule_id" uuid,
	"note" text DEFAULT '' NOT NULL,
	CONSTRAINT "model_kind" CHECK ("model"."kind" in ('canister', 'hang-on-back', 'internal', 'motor-sponge', 'air-sponge', 'air-box', 'fluidised', 'sump')),
	CONSTRAINT "model_mains" CHECK ("model"."mains_frequency" in (50, 60)),
	CONSTRAINT "model_named" CHECK (length(trim("model"."name")) > 0 and length(trim("model"."maker")) > 0)
);
--> statement-breakpoint
CREATE TABLE "part" (
	"id" uuid PRIMARY KEY NOT NULL,
	"version" integer DEFAULT 1 NOT NULL,
	"created_at" timestamp (3) with time zone DEFAULT now() NOT NULL,
	"updated_at" timestamp (3) with time zone DEFAULT now() NOT NULL,
	"deleted_at" timestamp (3) with time zone,
	"model_id" uuid NOT NULL,
	"position" double precision NOT NULL,
	"name" text NOT NULL,
	"job" text DEFAULT '' NOT NULL,
	"material" text NOT NULL,
	"fixing" text NOT NULL,
	"moves" integer DEFAULT 1 NOT NULL,
	"seconds" double precision DEFAULT 0 NOT NULL,
	"reach" text,
	"checklist" text DEFAULT 'general' NOT NULL,
	"findings" jsonb DEFAULT '[]'::jsonb NOT NULL,
	"spare_price_minor" integer,
	"spare_currency" text,
	"wet_mass" double precision,
	"note" text DEFAULT '' NOT NULL,
	"typed" jsonb DEFAULT '{}'::jsonb NOT NULL,
	CONSTRAINT "part_counts" CHECK ("part"."moves" >= 0 and "part"."seconds" >= 0 and "part"."wet_mass" >= 0),
	CONSTRAINT "part_money" CHECK (("part"."spare_price_minor" is null) = ("part"."spare_currency" is null)),
	CONSTRAINT "part_reach" CHECK ("part"."reach" in ('pre-filter', 'pad', 'media', 'impeller'))
);
--> statement-breakpoint
CREATE TABLE "photo" (
	"id" uuid PRIMARY KEY NOT NULL,
	"version" integer DEFAULT 1 NOT NULL,
	"created_at" timestamp (3) with time zone DEFAULT now() NOT NULL,
	"updated_at" timestamp (3) with time zone DEFAULT now() NOT NULL,
	"deleted_at" timestamp (3) with time zone,
	"part_id" uuid,
	"trial_id" uuid,
	"caption" text DEFAULT '' NOT NULL,
	"width" integer NOT NULL,
	"height" integer NOT NULL,
	"bytes" integer NOT NULL,
	"full" "bytea" NOT NULL,
	"thumb" "bytea" NOT NULL,
	CONSTRAINT "photo_of_one" CHECK (num_nonnulls("photo"."part_id", "photo"."trial_id") = 1)
);
--> statement-breakpoint
CREATE TABLE "reading" (
	"id" uuid PRIMARY KEY NOT NULL,
	"version" integer DEFAULT 1 NOT NULL,
	"created_at" timestamp (3) with time zone DEFAULT now() NOT NULL,
	"updated_at" timestamp (3) with time zone DEFAULT now() NOT NULL,
	"deleted_at" timestamp (3) with time zone,
	"trial_id" uuid NOT NULL,
	"kind" text DEFAULT 'vessel' NOT NULL,
	"taken_at" timestamp (3) with time zone NOT NULL,
	"volume" double precision,
	"seconds" double precision,
	"value" double precision,
	"series" text DEFAULT '' NOT NULL,
	"outcome" text DEFAULT '' NOT NULL,
	"note" text DEFAULT '' NOT NULL,
	"source" text DEFAULT '' NOT NULL,
	CONSTRAINT "reading_whole" CHECK (case "reading"."kind"
        when 'vessel' then "reading"."volume" > 0 and "reading"."seconds" >= 0.5
        when 'weighed' then "reading"."value" > 0 and "reading"."seconds" >= 0.5
        when 'meter' then "reading"."value" > 0 and "reading"."seconds" >= 0.5
        when 'meter-check' then "reading"."value" > 0 and "reading"."volume" > 0
        when 'holding' then "reading"."seconds" >= 0 and "reading"."outcome" in ('let-go', 'still')
        when 'prime' then "reading"."seconds" >= 0
        when 'dye' then "reading"."seconds" >= 0 and "reading"."value" >= 0
        else "reading"."value" >= 0 end is true)
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
	"catalogue" text,
	"holes" integer,
	"hole_diameter" double precision,
	"discharge_coefficient" double precision,
	CONSTRAINT "segment_whole" CHECK (("segment"."kind" = 'hose' and "segment"."length" >= 0 and "segment"."diameter" > 0 and "segment"."roughness" >= 0)
       or ("segment"."kind" = 'fitting' and "segment"."loss_coefficient" >= 0 and "segment"."diameter" > 0 and "segment"."count" >= 0)
       or ("segment"."kind" = 'spray-bar' and "segment"."holes" > 0 and "segment"."hole_diameter" > 0 and "segment"."discharge_coefficient" > 0))
);
--> statement-breakpoint
CREATE TABLE "setting" (
	"name" text PRIMARY KEY NOT NULL,
	"value" jsonb NOT NULL,
	"updated_at" timestamp (3) with time zone DEFAULT now() NOT NULL
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
	"state" text DEFAULT 'new' NOT NULL,
	"months_in_use" double precision,
	"serial" text DEFAULT '' NOT NULL,
	"condition" text DEFAULT '' NOT NULL,
	"checks" jsonb DEFAULT '{}'::jsonb NOT NULL,
	"media_mass" double precision,
	"note" text DEFAULT '' NOT NULL,
	"typed" jsonb DEFAULT '{}'::jsonb NOT NULL,
	CONSTRAINT "specimen_obtained" CHECK ("specimen"."obtained" in ('bought', 'loaned', 'given', 'second-hand')),
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
	CONSTRAINT "tank_shape" CHECK ("tank"."shape" in ('box', 'cylinder', 'bow-front', 'corner')),
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
	"kind" text DEFAULT 'vessel' NOT NULL,
	"state" text NOT NULL,
	"lift" double precision NOT NULL,
	"water_temperature" double precision NOT NULL,
	"mains_frequency" integer NOT NULL,
	"vessel_volume" double precision NOT NULL,
	"vessel_uncertainty" double precision NOT NULL,
	"clock_resolution" double precision NOT NULL,
	"reaction" double precision NOT NULL,
	"days_in_use" double precision,
	"valve" double precision DEFAULT 1 NOT NULL,
	"outlet" text DEFAULT '' NOT NULL,
	"mains_voltage" double precision,
	"setup" jsonb DEFAULT '{}'::jsonb NOT NULL,
	"fill_id" uuid,
	"out_reason" text,
	"note" text DEFAULT '' NOT NULL,
	"typed" jsonb DEFAULT '{}'::jsonb NOT NULL,
	CONSTRAINT "trial_id_kind" UNIQUE("id","kind"),
	CONSTRAINT "trial_kind" CHECK ("trial"."kind" in ('vessel', 'weighed', 'meter', 'read', 'shut-off', 'meter-check', 'power', 'noise', 'dye', 'holding', 'prime', 'air')),
	CONSTRAINT "trial_valve" CHECK ("trial"."valve" between 0 and 1),
	CONSTRAINT "trial_state" CHECK ("trial"."state" in ('empty', 'as-shipped', 'proposed', 'dirty')),
	CONSTRAINT "trial_mains" CHECK ("trial"."mains_frequency" in (50, 60)),
	CONSTRAINT "trial_vessel" CHECK ("trial"."vessel_volume" > 0)
);
--> statement-breakpoint
ALTER TABLE "body" ADD CONSTRAINT "body_model_id_model_id_fk" FOREIGN KEY ("model_id") REFERENCES "public"."model"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "chamber" ADD CONSTRAINT "chamber_model_id_model_id_fk" FOREIGN KEY ("model_id") REFERENCES "public"."model"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "claim" ADD CONSTRAINT "claim_model_id_model_id_fk" FOREIGN KEY ("model_id") REFERENCES "public"."model"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "content_item" ADD CONSTRAINT "content_item_model_id_model_id_fk" FOREIGN KEY ("model_id") REFERENCES "public"."model"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "fill" ADD CONSTRAINT "fill_model_id_model_id_fk" FOREIGN KEY ("model_id") REFERENCES "public"."model"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "hookup" ADD CONSTRAINT "hookup_model_id_model_id_fk" FOREIGN KEY ("model_id") REFERENCES "public"."model"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "layer" ADD CONSTRAINT "layer_fill_id_fill_id_fk" FOREIGN KEY ("fill_id") REFERENCES "public"."fill"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "layer" ADD CONSTRAINT "layer_chamber_id_chamber_id_fk" FOREIGN KEY ("chamber_id") REFERENCES "public"."chamber"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "layer" ADD CONSTRAINT "layer_medium_id_medium_id_fk" FOREIGN KEY ("medium_id") REFERENCES "public"."medium"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "log" ADD CONSTRAINT "log_trial_id_trial_id_fk" FOREIGN KEY ("trial_id") REFERENCES "public"."trial"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "model" ADD CONSTRAINT "model_house_rule_id_house_rule_id_fk" FOREIGN KEY ("house_rule_id") REFERENCES "public"."house_rule"("id") ON DELETE set null ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "part" ADD CONSTRAINT "part_model_id_model_id_fk" FOREIGN KEY ("model_id") REFERENCES "public"."model"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "photo" ADD CONSTRAINT "photo_part_id_part_id_fk" FOREIGN KEY ("part_id") REFERENCES "public"."part"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "photo" ADD CONSTRAINT "photo_trial_id_trial_id_fk" FOREIGN KEY ("trial_id") REFERENCES "public"."trial"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "reading" ADD CONSTRAINT "reading_trial_id_trial_id_fk" FOREIGN KEY ("trial_id") REFERENCES "public"."trial"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "reading" ADD CONSTRAINT "reading_kind_of_trial" FOREIGN KEY ("trial_id","kind") REFERENCES "public"."trial"("id","kind") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "segment" ADD CONSTRAINT "segment_hookup_id_hookup_id_fk" FOREIGN KEY ("hookup_id") REFERENCES "public"."hookup"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "specimen" ADD CONSTRAINT "specimen_model_id_model_id_fk" FOREIGN KEY ("model_id") REFERENCES "public"."model"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "tank" ADD CONSTRAINT "tank_stock_class_id_stock_class_id_fk" FOREIGN KEY ("stock_class_id") REFERENCES "public"."stock_class"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "trial" ADD CONSTRAINT "trial_model_id_model_id_fk" FOREIGN KEY ("model_id") REFERENCES "public"."model"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "trial" ADD CONSTRAINT "trial_specimen_id_specimen_id_fk" FOREIGN KEY ("specimen_id") REFERENCES "public"."specimen"("id") ON DELETE set null ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "trial" ADD CONSTRAINT "trial_hookup_id_hookup_id_fk" FOREIGN KEY ("hookup_id") REFERENCES "public"."hookup"("id") ON DELETE set null ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "trial" ADD CONSTRAINT "trial_fill_id_fill_id_fk" FOREIGN KEY ("fill_id") REFERENCES "public"."fill"("id") ON DELETE set null ON UPDATE no action;--> statement-breakpoint
CREATE UNIQUE INDEX "body_of_model" ON "body" USING btree ("model_id") WHERE "body"."deleted_at" is null;--> statement-breakpoint
CREATE INDEX "chamber_of_model" ON "chamber" USING btree ("model_id","position");--> statement-breakpoint
CREATE UNIQUE INDEX "claim_once" ON "claim" USING btree ("model_id","quantity",coalesce("mains_frequency", 0)) WHERE "claim"."deleted_at" is null;--> statement-breakpoint
CREATE INDEX "content_of_model" ON "content_item" USING btree ("model_id");--> statement-breakpoint
CREATE INDEX "fill_of_model" ON "fill" USING btree ("model_id");--> statement-breakpoint
CREATE INDEX "hookup_of_model" ON "hookup" USING btree ("model_id");--> statement-breakpoint
CREATE UNIQUE INDEX "layer_place" ON "layer" USING btree ("fill_id","position");--> statement-breakpoint
CREATE UNIQUE INDEX "layer_id" ON "layer" USING btree ("fill_id","id");--> statement-breakpoint
CREATE INDEX "log_of_trial" ON "log" USING btree ("trial_id","started_at");--> statement-breakpoint
CREATE UNIQUE INDEX "medium_name" ON "medium" USING btree (lower("name")) WHERE "medium"."deleted_at" is null;--> statement-breakpoint
CREATE UNIQUE INDEX "model_maker_name" ON "model" USING btree (lower("maker"),lower("name")) WHERE "model"."deleted_at" is null;--> statement-breakpoint
CREATE INDEX "model_by_name" ON "model" USING btree (lower("name"),"id");--> statement-breakpoint
CREATE INDEX "model_by_updated" ON "model" USING btree ("updated_at","id");--> statement-breakpoint
CREATE INDEX "part_of_model" ON "part" USING btree ("model_id","position");--> statement-breakpoint
CREATE INDEX "photo_of_part" ON "photo" USING btree ("part_id");--> statement-breakpoint
CREATE INDEX "photo_of_trial" ON "photo" USING btree ("trial_id");--> statement-breakpoint
CREATE INDEX "reading_of_trial" ON "reading" USING btree ("trial_id","taken_at");--> statement-breakpoint
CREATE UNIQUE INDEX "segment_place" ON "segment" USING btree ("hookup_id","position");--> statement-breakpoint
CREATE UNIQUE INDEX "segment_id" ON "segment" USING btree ("hookup_id","id");--> statement-breakpoint
CREATE INDEX "specimen_of_model" ON "specimen" USING btree ("model_id");--> statement-breakpoint
CREATE INDEX "tank_by_name" ON "tank" USING btree (lower("name"),"id");--> statement-breakpoint
CREATE INDEX "trial_of_model" ON "trial" USING btree ("model_id");