ALTER TABLE "shelf_entry" ADD COLUMN "candidate" jsonb;--> statement-breakpoint
ALTER TABLE "tank" ADD COLUMN "filters" jsonb DEFAULT '[]'::jsonb NOT NULL;