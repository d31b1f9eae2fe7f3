CREATE TABLE "import_batch" (
	"id" uuid PRIMARY KEY NOT NULL,
	"created_at" timestamp (3) with time zone DEFAULT now() NOT NULL,
	"undone_at" timestamp (3) with time zone,
	"undo" jsonb NOT NULL
);
