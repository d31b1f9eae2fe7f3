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
	"measured" boolean DEFAULT false NOT NULL,
	"typed" jsonb DEFAULT '{}'::jsonb NOT NULL
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
	CONSTRAINT "content_found" CHECK ("content_item"."found" in ('present','missing','extra','damaged'))
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
	CONSTRAINT "part_reach" CHECK ("part"."reach" in ('pre-filter','pad','media','impeller'))
);
--> statement-breakpoint
CREATE TABLE "photo" (
	"id" uuid PRIMARY KEY NOT NULL,
	"version" integer DEFAULT 1 NOT NULL,
	"created_at" timestamp (3) with time zone DEFAULT now() NOT NULL,
	"updated_at" timestamp (3) with time zone DEFAULT now() NOT NULL,
	"deleted_at" timestamp (3) with time zone,
	"part_id" uuid NOT NULL,
	"caption" text DEFAULT '' NOT NULL,
	"width" integer NOT NULL,
	"height" integer NOT NULL,
	"bytes" integer NOT NULL,
	"full" "bytea" NOT NULL,
	"thumb" "bytea" NOT NULL
);
--> statement-breakpoint
ALTER TABLE "specimen" ADD COLUMN "state" text DEFAULT 'new' NOT NULL;--> statement-breakpoint
ALTER TABLE "specimen" ADD COLUMN "months_in_use" double precision;--> statement-breakpoint
ALTER TABLE "specimen" ADD COLUMN "serial" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "specimen" ADD COLUMN "condition" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "specimen" ADD COLUMN "checks" jsonb DEFAULT '{}'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "body" ADD CONSTRAINT "body_model_id_model_id_fk" FOREIGN KEY ("model_id") REFERENCES "public"."model"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "chamber" ADD CONSTRAINT "chamber_model_id_model_id_fk" FOREIGN KEY ("model_id") REFERENCES "public"."model"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "content_item" ADD CONSTRAINT "content_item_model_id_model_id_fk" FOREIGN KEY ("model_id") REFERENCES "public"."model"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "part" ADD CONSTRAINT "part_model_id_model_id_fk" FOREIGN KEY ("model_id") REFERENCES "public"."model"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "photo" ADD CONSTRAINT "photo_part_id_part_id_fk" FOREIGN KEY ("part_id") REFERENCES "public"."part"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE UNIQUE INDEX "body_of_model" ON "body" USING btree ("model_id") WHERE "body"."deleted_at" is null;--> statement-breakpoint
CREATE INDEX "chamber_of_model" ON "chamber" USING btree ("model_id","position");--> statement-breakpoint
CREATE INDEX "content_of_model" ON "content_item" USING btree ("model_id");--> statement-breakpoint
CREATE INDEX "part_of_model" ON "part" USING btree ("model_id","position");--> statement-breakpoint
CREATE INDEX "photo_of_part" ON "photo" USING btree ("part_id");