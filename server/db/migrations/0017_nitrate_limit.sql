ALTER TABLE "stock_class" ADD COLUMN "nitrate_limit" double precision NOT NULL DEFAULT 0.0226;--> statement-breakpoint
UPDATE "stock_class" SET "nitrate_limit" = 0.0452 WHERE "code" IN ('heavy', 'turtle', 'turtle-current', 'turtle-hatchling');--> statement-breakpoint
UPDATE "stock_class" SET "nitrate_limit" = 0.01 WHERE "code" = 'delicate';--> statement-breakpoint
UPDATE "stock_class" SET "nitrate_limit" = 0.02 WHERE "code" = 'marine';--> statement-breakpoint
ALTER TABLE "stock_class" ALTER COLUMN "nitrate_limit" DROP DEFAULT;
