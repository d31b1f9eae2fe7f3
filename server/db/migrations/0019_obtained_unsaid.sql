ALTER TABLE "specimen" ALTER COLUMN "obtained" DROP DEFAULT;--> statement-breakpoint
ALTER TABLE "specimen" ALTER COLUMN "obtained" DROP NOT NULL;