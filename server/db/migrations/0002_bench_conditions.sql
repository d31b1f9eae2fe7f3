ALTER TABLE "part" DROP CONSTRAINT "part_counts";--> statement-breakpoint
DROP INDEX "claim_once";--> statement-breakpoint
ALTER TABLE "model" ADD COLUMN "primed_by" text;--> statement-breakpoint
ALTER TABLE "part" ADD COLUMN "after" jsonb;--> statement-breakpoint
ALTER TABLE "part" ADD COLUMN "cleaning" double precision;--> statement-breakpoint
ALTER TABLE "part" ADD COLUMN "back" double precision;--> statement-breakpoint
ALTER TABLE "specimen" ADD COLUMN "media_mass_by" text DEFAULT 'estimate' NOT NULL;--> statement-breakpoint
ALTER TABLE "trial" ADD COLUMN "salinity" double precision DEFAULT 0 NOT NULL;--> statement-breakpoint
CREATE UNIQUE INDEX "claim_once" ON "claim" USING btree ("model_id","quantity",coalesce("mains_frequency", 0),lower("printed_on"),lower("qualifier")) WHERE "claim"."deleted_at" is null;--> statement-breakpoint
ALTER TABLE "model" ADD CONSTRAINT "model_priming" CHECK ("model"."primed_by" in ('fill', 'button', 'levers'));--> statement-breakpoint
ALTER TABLE "part" ADD CONSTRAINT "part_counts" CHECK ("part"."moves" >= 0 and "part"."seconds" >= 0 and "part"."wet_mass" >= 0 and "part"."cleaning" >= 0 and "part"."back" >= 0);--> statement-breakpoint
ALTER TABLE "specimen" ADD CONSTRAINT "specimen_mass_by" CHECK ("specimen"."media_mass_by" in ('scale', 'estimate'));--> statement-breakpoint
ALTER TABLE "trial" ADD CONSTRAINT "trial_salinity" CHECK ("trial"."salinity" between 0 and 42);