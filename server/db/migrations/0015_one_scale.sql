ALTER TABLE "medium" ADD COLUMN "surface_band" double precision;--> statement-breakpoint
ALTER TABLE "medium" ADD COLUMN "working_share" double precision;--> statement-breakpoint
ALTER TABLE "medium" ADD COLUMN "working_band" double precision;--> statement-breakpoint
ALTER TABLE "shelf_entry" ADD COLUMN "split" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "shelf_entry" ADD COLUMN "overclaim" double precision;--> statement-breakpoint
ALTER TABLE "tank" ADD COLUMN "conditioner" boolean DEFAULT false NOT NULL;