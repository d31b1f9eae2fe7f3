ALTER TABLE "house_rule" ADD COLUMN "advice" jsonb DEFAULT '{"weights":{"capacity":30,"gentleness":15,"service":15,"noise":10,"running":8,"price":12,"build":5,"evidence":5},"twoFrom":0.473,"twoWhenCrowded":true,"years":5,"currency":"EUR","tariffMinor":32,"minuteMinor":null,"dearPriceMinor":35000,"dearYearMinor":9000,"addsSponge":true,"cutFloss":false}'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "model" ADD COLUMN "kin_id" uuid;--> statement-breakpoint
ALTER TABLE "model" ADD COLUMN "kinship" text DEFAULT 'sibling' NOT NULL;--> statement-breakpoint
ALTER TABLE "model" ADD COLUMN "offers" jsonb DEFAULT '[]'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "tank" ADD COLUMN "visits" jsonb DEFAULT '[]'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "model" ADD CONSTRAINT "model_kin_id_model_id_fk" FOREIGN KEY ("kin_id") REFERENCES "public"."model"("id") ON DELETE set null ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "model" ADD CONSTRAINT "model_kinship" CHECK ("model"."kinship" in ('sibling', 'generation'));