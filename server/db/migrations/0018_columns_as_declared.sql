ALTER TABLE "chamber" ALTER COLUMN "role" SET DEFAULT 'tray';--> statement-breakpoint
ALTER TABLE "chamber" ALTER COLUMN "shape" SET DEFAULT 'box';--> statement-breakpoint
ALTER TABLE "chamber" ALTER COLUMN "width" SET DEFAULT 0.1;--> statement-breakpoint
ALTER TABLE "chamber" ALTER COLUMN "depth" SET DEFAULT 0.1;--> statement-breakpoint
ALTER TABLE "chamber" ALTER COLUMN "height" SET DEFAULT 0.1;--> statement-breakpoint
ALTER TABLE "chamber" ALTER COLUMN "diameter" SET DEFAULT 0.1;--> statement-breakpoint
ALTER TABLE "chamber" ALTER COLUMN "inner_diameter" SET DEFAULT 0.05;--> statement-breakpoint
ALTER TABLE "chamber" ALTER COLUMN "top_width" SET DEFAULT 0.1;--> statement-breakpoint
ALTER TABLE "chamber" ALTER COLUMN "top_depth" SET DEFAULT 0.1;--> statement-breakpoint
ALTER TABLE "chamber" ALTER COLUMN "top_diameter" SET DEFAULT 0.1;--> statement-breakpoint
ALTER TABLE "chamber" ALTER COLUMN "low_height" SET DEFAULT 0.05;--> statement-breakpoint
ALTER TABLE "chamber" ALTER COLUMN "volume" SET DEFAULT 0.001;--> statement-breakpoint
ALTER TABLE "chamber" ALTER COLUMN "x" SET DEFAULT 0;--> statement-breakpoint
ALTER TABLE "chamber" ALTER COLUMN "y" SET DEFAULT 0;--> statement-breakpoint
ALTER TABLE "chamber" ALTER COLUMN "use" SET DEFAULT 'biological';--> statement-breakpoint
ALTER TABLE "change_over" ALTER COLUMN "way" SET DEFAULT 'beside';--> statement-breakpoint
ALTER TABLE "change_over" ALTER COLUMN "weeks" SET DEFAULT 6;--> statement-breakpoint
ALTER TABLE "change_over" ALTER COLUMN "share" SET DEFAULT 0.3;--> statement-breakpoint
ALTER TABLE "house_rule" ALTER COLUMN "school" SET DEFAULT 'strain-first';--> statement-breakpoint
ALTER TABLE "house_rule" ALTER COLUMN "chemical" SET DEFAULT 'none';--> statement-breakpoint
ALTER TABLE "house_rule" ALTER COLUMN "capacity" SET DEFAULT '{}'::jsonb;--> statement-breakpoint
ALTER TABLE "house_rule" ALTER COLUMN "advice" SET DEFAULT '{}'::jsonb;--> statement-breakpoint
ALTER TABLE "house_rule" ALTER COLUMN "upkeep" SET DEFAULT '{}'::jsonb;--> statement-breakpoint
ALTER TABLE "medium" ALTER COLUMN "form" SET DEFAULT 'sintered';--> statement-breakpoint
ALTER TABLE "medium" ALTER COLUMN "job" SET DEFAULT 'biological';--> statement-breakpoint
ALTER TABLE "medium" ALTER COLUMN "bulk_density" SET DEFAULT 500;--> statement-breakpoint
ALTER TABLE "part" ALTER COLUMN "material" SET DEFAULT 'hard plastic';--> statement-breakpoint
ALTER TABLE "part" ALTER COLUMN "fixing" SET DEFAULT 'none';--> statement-breakpoint
ALTER TABLE "photo" ALTER COLUMN "width" SET DEFAULT 0;--> statement-breakpoint
ALTER TABLE "photo" ALTER COLUMN "height" SET DEFAULT 0;--> statement-breakpoint
ALTER TABLE "photo" ALTER COLUMN "bytes" SET DEFAULT 0;--> statement-breakpoint
ALTER TABLE "specimen" ALTER COLUMN "disclosure" SET DEFAULT '{}'::jsonb;--> statement-breakpoint
ALTER TABLE "stock_class" ALTER COLUMN "feed_per_volume" SET DEFAULT 1.736111111111111e-7;--> statement-breakpoint
ALTER TABLE "stock_class" ALTER COLUMN "protein" SET DEFAULT 0.4;--> statement-breakpoint
ALTER TABLE "stock_class" ALTER COLUMN "oxygen_of_feed" SET DEFAULT 0.4;--> statement-breakpoint
ALTER TABLE "stock_class" ALTER COLUMN "plant_share" SET DEFAULT 0;--> statement-breakpoint
ALTER TABLE "stock_class" ALTER COLUMN "temperature" SET DEFAULT 25;--> statement-breakpoint
ALTER TABLE "stock_class" ALTER COLUMN "salinity" SET DEFAULT 0;--> statement-breakpoint
ALTER TABLE "stock_class" ALTER COLUMN "ph" SET DEFAULT 7.5;--> statement-breakpoint
ALTER TABLE "stock_class" ALTER COLUMN "nitrate_limit" SET DEFAULT 0.0226;--> statement-breakpoint
ALTER TABLE "stock_class" ALTER COLUMN "strongest_current" SET DEFAULT 0.25;--> statement-breakpoint
ALTER TABLE "stock_class" ALTER COLUMN "open_inlet" SET DEFAULT true;--> statement-breakpoint
ALTER TABLE "stock_class" ALTER COLUMN "min_turnover" SET DEFAULT 4;--> statement-breakpoint
ALTER TABLE "stock_class" ALTER COLUMN "max_turnover" SET DEFAULT 12;--> statement-breakpoint
ALTER TABLE "stock_class" ALTER COLUMN "litres_per_kilogram" SET DEFAULT 100;--> statement-breakpoint
ALTER TABLE "stock_class" ALTER COLUMN "oversizing" SET DEFAULT 1.5;--> statement-breakpoint
ALTER TABLE "stock_class" ALTER COLUMN "marks" SET DEFAULT '{}'::jsonb;--> statement-breakpoint
ALTER TABLE "stock_class" ALTER COLUMN "source" SET DEFAULT 'common practice, no source';--> statement-breakpoint
ALTER TABLE "tank" ALTER COLUMN "shape" SET DEFAULT 'box';--> statement-breakpoint
ALTER TABLE "tank" ALTER COLUMN "length" SET DEFAULT 0.8;--> statement-breakpoint
ALTER TABLE "tank" ALTER COLUMN "width" SET DEFAULT 0.35;--> statement-breakpoint
ALTER TABLE "tank" ALTER COLUMN "bow_width" SET DEFAULT 0.45;--> statement-breakpoint
ALTER TABLE "tank" ALTER COLUMN "diameter" SET DEFAULT 0.5;--> statement-breakpoint
ALTER TABLE "tank" ALTER COLUMN "side" SET DEFAULT 0.6;--> statement-breakpoint
ALTER TABLE "tank" ALTER COLUMN "end_panel" SET DEFAULT 0.2;--> statement-breakpoint
ALTER TABLE "tank" ALTER COLUMN "front" SET DEFAULT 'flat';--> statement-breakpoint
ALTER TABLE "tank" ALTER COLUMN "height" SET DEFAULT 0.4;--> statement-breakpoint
ALTER TABLE "tank" ALTER COLUMN "water_level" SET DEFAULT 0.37;--> statement-breakpoint
ALTER TABLE "tank" ALTER COLUMN "substrate_depth" SET DEFAULT 0;--> statement-breakpoint
ALTER TABLE "tank" ALTER COLUMN "substrate_porosity" SET DEFAULT 0.4;--> statement-breakpoint
ALTER TABLE "tank" ALTER COLUMN "decor_volume" SET DEFAULT 0;--> statement-breakpoint
ALTER TABLE "tank" ALTER COLUMN "stock_class_id" SET DEFAULT '00000000-0000-4000-8000-000000000202';--> statement-breakpoint
ALTER TABLE "trial" ALTER COLUMN "state" SET DEFAULT 'empty';--> statement-breakpoint
ALTER TABLE "trial" ALTER COLUMN "lift" SET DEFAULT 0;--> statement-breakpoint
ALTER TABLE "trial" ALTER COLUMN "water_temperature" SET DEFAULT 22;--> statement-breakpoint
ALTER TABLE "trial" ALTER COLUMN "mains_frequency" SET DEFAULT 50;--> statement-breakpoint
ALTER TABLE "trial" ALTER COLUMN "vessel_volume" SET DEFAULT 0.005;--> statement-breakpoint
ALTER TABLE "trial" ALTER COLUMN "vessel_uncertainty" SET DEFAULT 0.01;--> statement-breakpoint
ALTER TABLE "trial" ALTER COLUMN "clock_resolution" SET DEFAULT 0.01;--> statement-breakpoint
ALTER TABLE "trial" ALTER COLUMN "reaction" SET DEFAULT 0.05;--> statement-breakpoint
-- Triggers of rows are written from the contract by the start (server/db/triggers.ts).
DROP FUNCTION "touched_directly"() CASCADE;
--> statement-breakpoint
DROP FUNCTION "touched_model"() CASCADE;
--> statement-breakpoint
DROP FUNCTION "touched_through_trial"() CASCADE;
--> statement-breakpoint
DROP FUNCTION "touched_photo"() CASCADE;
--> statement-breakpoint
DROP FUNCTION "touched_claim"() CASCADE;
