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
ALTER TABLE "chamber" ADD COLUMN "way" text;--> statement-breakpoint
ALTER TABLE "chamber" ADD COLUMN "beside" boolean;--> statement-breakpoint
ALTER TABLE "chamber" ADD COLUMN "overflow_sill" double precision;--> statement-breakpoint
ALTER TABLE "chamber" ADD COLUMN "wall_gap" double precision;--> statement-breakpoint
ALTER TABLE "hookup" ADD COLUMN "fitted" jsonb DEFAULT '{}'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "model" ADD COLUMN "house_rule_id" uuid;--> statement-breakpoint
ALTER TABLE "trial" ADD COLUMN "fill_id" uuid;--> statement-breakpoint
ALTER TABLE "fill" ADD CONSTRAINT "fill_model_id_model_id_fk" FOREIGN KEY ("model_id") REFERENCES "public"."model"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "layer" ADD CONSTRAINT "layer_fill_id_fill_id_fk" FOREIGN KEY ("fill_id") REFERENCES "public"."fill"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "layer" ADD CONSTRAINT "layer_chamber_id_chamber_id_fk" FOREIGN KEY ("chamber_id") REFERENCES "public"."chamber"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "layer" ADD CONSTRAINT "layer_medium_id_medium_id_fk" FOREIGN KEY ("medium_id") REFERENCES "public"."medium"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "fill_of_model" ON "fill" USING btree ("model_id");--> statement-breakpoint
CREATE UNIQUE INDEX "layer_place" ON "layer" USING btree ("fill_id","position");--> statement-breakpoint
CREATE UNIQUE INDEX "layer_id" ON "layer" USING btree ("fill_id","id");--> statement-breakpoint
CREATE UNIQUE INDEX "medium_name" ON "medium" USING btree (lower("name")) WHERE "medium"."deleted_at" is null;--> statement-breakpoint
ALTER TABLE "model" ADD CONSTRAINT "model_house_rule_id_house_rule_id_fk" FOREIGN KEY ("house_rule_id") REFERENCES "public"."house_rule"("id") ON DELETE set null ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "trial" ADD CONSTRAINT "trial_fill_id_fill_id_fk" FOREIGN KEY ("fill_id") REFERENCES "public"."fill"("id") ON DELETE set null ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "chamber" ADD CONSTRAINT "chamber_way" CHECK ("chamber"."way" in ('up', 'down', 'across', 'inward'));--> statement-breakpoint
ALTER TABLE "chamber" ADD CONSTRAINT "chamber_gaps" CHECK ("chamber"."overflow_sill" > 0 and "chamber"."wall_gap" > 0);