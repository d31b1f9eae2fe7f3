-- What ships gets its values right after, by the start; those here only stand until then.
ALTER TABLE "tank" DROP CONSTRAINT "tank_stock_class_id_stock_class_id_fk";
--> statement-breakpoint
ALTER TABLE "stock_class" RENAME COLUMN "id" TO "code";
--> statement-breakpoint
ALTER TABLE "stock_class" ADD COLUMN "id" uuid;
--> statement-breakpoint
UPDATE "stock_class" SET "id" = coalesce((SELECT t.id FROM (VALUES
	('light', '00000000-0000-4000-8000-000000000201'::uuid), ('normal', '00000000-0000-4000-8000-000000000202'),
	('heavy', '00000000-0000-4000-8000-000000000203'), ('marine', '00000000-0000-4000-8000-000000000204'),
	('turtle', '00000000-0000-4000-8000-000000000205')) AS t(code, id) WHERE t.code = "stock_class"."code"), gen_random_uuid());
--> statement-breakpoint
ALTER TABLE "stock_class" DROP CONSTRAINT "stock_class_pkey";
--> statement-breakpoint
ALTER TABLE "stock_class" ADD PRIMARY KEY ("id");
--> statement-breakpoint
ALTER TABLE "stock_class" ALTER COLUMN "code" DROP NOT NULL;
--> statement-breakpoint
ALTER TABLE "tank" ADD COLUMN "class_id" uuid;
--> statement-breakpoint
UPDATE "tank" SET "class_id" = s."id" FROM "stock_class" s WHERE s."code" = "tank"."stock_class_id";
--> statement-breakpoint
ALTER TABLE "tank" DROP COLUMN "stock_class_id";
--> statement-breakpoint
ALTER TABLE "tank" RENAME COLUMN "class_id" TO "stock_class_id";
--> statement-breakpoint
ALTER TABLE "tank" ALTER COLUMN "stock_class_id" SET NOT NULL;
--> statement-breakpoint
ALTER TABLE "tank" ADD CONSTRAINT "tank_stock_class_id_stock_class_id_fk" FOREIGN KEY ("stock_class_id") REFERENCES "public"."stock_class"("id") ON DELETE no action ON UPDATE no action;
--> statement-breakpoint
ALTER TABLE "stock_class" ALTER COLUMN "position" SET DEFAULT 100;
--> statement-breakpoint
ALTER TABLE "house_rule" ADD COLUMN "capacity" jsonb DEFAULT '{"order":["media-mass","balance","turnover","oversizing"],"bind":[],"turnoverFloor":1}'::jsonb NOT NULL;
--> statement-breakpoint
ALTER TABLE "stock_class" ADD COLUMN "version" integer DEFAULT 1 NOT NULL;
--> statement-breakpoint
ALTER TABLE "stock_class" ADD COLUMN "created_at" timestamp (3) with time zone DEFAULT now() NOT NULL;
--> statement-breakpoint
ALTER TABLE "stock_class" ADD COLUMN "updated_at" timestamp (3) with time zone DEFAULT now() NOT NULL;
--> statement-breakpoint
ALTER TABLE "stock_class" ADD COLUMN "deleted_at" timestamp (3) with time zone;
--> statement-breakpoint
ALTER TABLE "stock_class" ADD COLUMN "feed_per_volume" double precision DEFAULT 0 NOT NULL;
--> statement-breakpoint
ALTER TABLE "stock_class" ALTER COLUMN "feed_per_volume" DROP DEFAULT;
--> statement-breakpoint
ALTER TABLE "stock_class" ADD COLUMN "protein" double precision DEFAULT 0 NOT NULL;
--> statement-breakpoint
ALTER TABLE "stock_class" ALTER COLUMN "protein" DROP DEFAULT;
--> statement-breakpoint
ALTER TABLE "stock_class" ADD COLUMN "oxygen_of_feed" double precision DEFAULT 0 NOT NULL;
--> statement-breakpoint
ALTER TABLE "stock_class" ALTER COLUMN "oxygen_of_feed" DROP DEFAULT;
--> statement-breakpoint
ALTER TABLE "stock_class" ADD COLUMN "plant_share" double precision DEFAULT 0 NOT NULL;
--> statement-breakpoint
ALTER TABLE "stock_class" ALTER COLUMN "plant_share" DROP DEFAULT;
--> statement-breakpoint
ALTER TABLE "stock_class" ADD COLUMN "temperature" double precision DEFAULT 0 NOT NULL;
--> statement-breakpoint
ALTER TABLE "stock_class" ALTER COLUMN "temperature" DROP DEFAULT;
--> statement-breakpoint
ALTER TABLE "stock_class" ADD COLUMN "salinity" double precision DEFAULT 0 NOT NULL;
--> statement-breakpoint
ALTER TABLE "stock_class" ALTER COLUMN "salinity" DROP DEFAULT;
--> statement-breakpoint
ALTER TABLE "stock_class" ADD COLUMN "ph" double precision DEFAULT 0 NOT NULL;
--> statement-breakpoint
ALTER TABLE "stock_class" ALTER COLUMN "ph" DROP DEFAULT;
--> statement-breakpoint
ALTER TABLE "stock_class" ADD COLUMN "strongest_current" double precision DEFAULT 0 NOT NULL;
--> statement-breakpoint
ALTER TABLE "stock_class" ALTER COLUMN "strongest_current" DROP DEFAULT;
--> statement-breakpoint
ALTER TABLE "stock_class" ADD COLUMN "open_inlet" boolean DEFAULT true NOT NULL;
--> statement-breakpoint
ALTER TABLE "stock_class" ALTER COLUMN "open_inlet" DROP DEFAULT;
--> statement-breakpoint
ALTER TABLE "stock_class" ADD COLUMN "marks" jsonb DEFAULT '{}' NOT NULL;
--> statement-breakpoint
ALTER TABLE "stock_class" ALTER COLUMN "marks" DROP DEFAULT;
--> statement-breakpoint
ALTER TABLE "tank" ADD COLUMN "water_temperature" double precision DEFAULT 25 NOT NULL;
--> statement-breakpoint
ALTER TABLE "tank" ADD COLUMN "salinity" double precision DEFAULT 0 NOT NULL;
--> statement-breakpoint
ALTER TABLE "tank" ADD COLUMN "ph" double precision DEFAULT 7.5 NOT NULL;
--> statement-breakpoint
ALTER TABLE "tank" ADD COLUMN "alkalinity" double precision DEFAULT 0.1 NOT NULL;
--> statement-breakpoint
ALTER TABLE "tank" ADD COLUMN "tap_nitrate" double precision DEFAULT 0 NOT NULL;
--> statement-breakpoint
ALTER TABLE "tank" ADD COLUMN "feed" double precision;
--> statement-breakpoint
ALTER TABLE "tank" ADD COLUMN "plant_share" double precision;
--> statement-breakpoint
ALTER TABLE "tank" ADD COLUMN "change_share" double precision DEFAULT 0.3 NOT NULL;
--> statement-breakpoint
ALTER TABLE "tank" ADD COLUMN "change_days" double precision DEFAULT 7 NOT NULL;
--> statement-breakpoint
ALTER TABLE "tank" ADD COLUMN "room_temperature" double precision;
--> statement-breakpoint
ALTER TABLE "tank" ADD COLUMN "cabinet_width" double precision;
--> statement-breakpoint
ALTER TABLE "tank" ADD COLUMN "cabinet_depth" double precision;
--> statement-breakpoint
ALTER TABLE "tank" ADD COLUMN "cabinet_height" double precision;
--> statement-breakpoint
ALTER TABLE "tank" ADD COLUMN "bottom_height" double precision;
--> statement-breakpoint
ALTER TABLE "tank" ADD COLUMN "wall_gap" double precision;
--> statement-breakpoint
ALTER TABLE "tank" ADD COLUMN "rim_thickness" double precision;
--> statement-breakpoint
ALTER TABLE "tank" ADD COLUMN "covered" boolean DEFAULT false NOT NULL;
--> statement-breakpoint
ALTER TABLE "stock_class" ADD CONSTRAINT "stock_class_code_unique" UNIQUE("code");
--> statement-breakpoint
CREATE TRIGGER touch_on_insert AFTER INSERT ON "stock_class" REFERENCING NEW TABLE AS written FOR EACH STATEMENT EXECUTE FUNCTION touched_list('stock-classes');
--> statement-breakpoint
CREATE TRIGGER touch_on_update AFTER UPDATE ON "stock_class" REFERENCING NEW TABLE AS written FOR EACH STATEMENT EXECUTE FUNCTION touched_list('stock-classes');
--> statement-breakpoint
ALTER TABLE "body" ADD COLUMN "hook_opening" double precision;
--> statement-breakpoint
ALTER TABLE "body" ADD COLUMN "intake_reach" double precision;
--> statement-breakpoint
ALTER TABLE "stock_class" ADD COLUMN "typed" jsonb DEFAULT '{}'::jsonb NOT NULL;
--> statement-breakpoint
ALTER TABLE "tank" ADD COLUMN "door_width" double precision;
--> statement-breakpoint
ALTER TABLE "segment" ADD COLUMN "clear" boolean;
