CREATE TABLE "change_over" (
	"id" uuid PRIMARY KEY NOT NULL,
	"version" integer DEFAULT 1 NOT NULL,
	"created_at" timestamp (3) with time zone DEFAULT now() NOT NULL,
	"updated_at" timestamp (3) with time zone DEFAULT now() NOT NULL,
	"deleted_at" timestamp (3) with time zone,
	"tank_id" uuid NOT NULL,
	"way" text NOT NULL,
	"weeks" double precision NOT NULL,
	"share" double precision NOT NULL,
	"on" date NOT NULL,
	"old" jsonb,
	"next" jsonb NOT NULL,
	"tests" jsonb DEFAULT '[]'::jsonb NOT NULL,
	"done" jsonb DEFAULT '{}'::jsonb NOT NULL,
	"ended" date,
	"note" text DEFAULT '' NOT NULL,
	CONSTRAINT "change_over_way" CHECK ("change_over"."way" in ('beside', 'moved', 'starter'))
);
--> statement-breakpoint
CREATE TABLE "fault_search" (
	"id" uuid PRIMARY KEY NOT NULL,
	"version" integer DEFAULT 1 NOT NULL,
	"created_at" timestamp (3) with time zone DEFAULT now() NOT NULL,
	"updated_at" timestamp (3) with time zone DEFAULT now() NOT NULL,
	"deleted_at" timestamp (3) with time zone,
	"symptom" text NOT NULL,
	"model_id" uuid,
	"kind" text,
	"label" text DEFAULT '' NOT NULL,
	"tank_id" uuid,
	"on" date NOT NULL,
	"outcomes" jsonb DEFAULT '{}'::jsonb NOT NULL,
	"seen" jsonb DEFAULT '{}'::jsonb NOT NULL,
	"ended" date,
	"note" text DEFAULT '' NOT NULL,
	CONSTRAINT "fault_search_symptom" CHECK ("fault_search"."symptom" in ('rattle', 'leak', 'no-restart', 'weak-flow', 'fine-bubbles', 'cloudy', 'grows-noisy', 'other')),
	CONSTRAINT "fault_search_kind" CHECK ("fault_search"."kind" in ('canister', 'hang-on-back', 'internal', 'motor-sponge', 'air-sponge', 'air-box', 'fluidised', 'sump'))
);
--> statement-breakpoint
CREATE TABLE "set_up" (
	"id" uuid PRIMARY KEY NOT NULL,
	"version" integer DEFAULT 1 NOT NULL,
	"created_at" timestamp (3) with time zone DEFAULT now() NOT NULL,
	"updated_at" timestamp (3) with time zone DEFAULT now() NOT NULL,
	"deleted_at" timestamp (3) with time zone,
	"model_id" uuid NOT NULL,
	"tank_id" uuid,
	"specimen_id" uuid,
	"on" date NOT NULL,
	"ticked" jsonb DEFAULT '{}'::jsonb NOT NULL,
	"minutes" double precision,
	"note" text DEFAULT '' NOT NULL,
	"typed" jsonb DEFAULT '{}'::jsonb NOT NULL
);
--> statement-breakpoint
ALTER TABLE "part" ADD COLUMN "goes_in" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "part" ADD COLUMN "mark" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "part" ADD COLUMN "can_go_wrong" boolean;--> statement-breakpoint
ALTER TABLE "part" ADD COLUMN "follows" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "change_over" ADD CONSTRAINT "change_over_tank_id_tank_id_fk" FOREIGN KEY ("tank_id") REFERENCES "public"."tank"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "fault_search" ADD CONSTRAINT "fault_search_model_id_model_id_fk" FOREIGN KEY ("model_id") REFERENCES "public"."model"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "fault_search" ADD CONSTRAINT "fault_search_tank_id_tank_id_fk" FOREIGN KEY ("tank_id") REFERENCES "public"."tank"("id") ON DELETE set null ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "set_up" ADD CONSTRAINT "set_up_model_id_model_id_fk" FOREIGN KEY ("model_id") REFERENCES "public"."model"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "set_up" ADD CONSTRAINT "set_up_tank_id_tank_id_fk" FOREIGN KEY ("tank_id") REFERENCES "public"."tank"("id") ON DELETE set null ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "set_up" ADD CONSTRAINT "set_up_specimen_id_specimen_id_fk" FOREIGN KEY ("specimen_id") REFERENCES "public"."specimen"("id") ON DELETE set null ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "change_over_of_tank" ON "change_over" USING btree ("tank_id","on");--> statement-breakpoint
CREATE INDEX "fault_search_of_model" ON "fault_search" USING btree ("model_id","on");--> statement-breakpoint
CREATE INDEX "set_up_of_model" ON "set_up" USING btree ("model_id","on");
--> statement-breakpoint
CREATE TRIGGER touch_on_insert AFTER INSERT ON "set_up" REFERENCING NEW TABLE AS written FOR EACH STATEMENT EXECUTE FUNCTION touched_list('set-ups');
--> statement-breakpoint
CREATE TRIGGER touch_on_update AFTER UPDATE ON "set_up" REFERENCING NEW TABLE AS written FOR EACH STATEMENT EXECUTE FUNCTION touched_list('set-ups');
--> statement-breakpoint
CREATE TRIGGER touch_on_insert AFTER INSERT ON "change_over" REFERENCING NEW TABLE AS written FOR EACH STATEMENT EXECUTE FUNCTION touched_list('change-overs');
--> statement-breakpoint
CREATE TRIGGER touch_on_update AFTER UPDATE ON "change_over" REFERENCING NEW TABLE AS written FOR EACH STATEMENT EXECUTE FUNCTION touched_list('change-overs');
--> statement-breakpoint
CREATE TRIGGER touch_on_insert AFTER INSERT ON "fault_search" REFERENCING NEW TABLE AS written FOR EACH STATEMENT EXECUTE FUNCTION touched_list('fault-searches');
--> statement-breakpoint
CREATE TRIGGER touch_on_update AFTER UPDATE ON "fault_search" REFERENCING NEW TABLE AS written FOR EACH STATEMENT EXECUTE FUNCTION touched_list('fault-searches');
