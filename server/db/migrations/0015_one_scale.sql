ALTER TABLE "medium" ADD COLUMN "surface_band" double precision;--> statement-breakpoint
ALTER TABLE "medium" ADD COLUMN "working_share" double precision;--> statement-breakpoint
ALTER TABLE "medium" ADD COLUMN "working_band" double precision;--> statement-breakpoint
ALTER TABLE "shelf_entry" ADD COLUMN "split" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "shelf_entry" ADD COLUMN "overclaim" double precision DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE "tank" ADD COLUMN "conditioner" boolean DEFAULT false NOT NULL;--> statement-breakpoint
CREATE INDEX "shelf_entry_by_claim" ON "shelf_entry" USING btree ("overclaim" DESC NULLS LAST,"model_id" DESC NULLS LAST);--> statement-breakpoint
CREATE INDEX "shelf_entry_split" ON "shelf_entry" USING btree ("model_id") WHERE "shelf_entry"."split";