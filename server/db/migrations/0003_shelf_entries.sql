CREATE TABLE "shelf_entry" (
	"model_id" uuid PRIMARY KEY NOT NULL,
	"revision" integer DEFAULT 1 NOT NULL,
	"rated_flow" double precision DEFAULT 0 NOT NULL,
	"worked_from" text,
	"shown" jsonb
);
--> statement-breakpoint
ALTER TABLE "house_rule" DROP CONSTRAINT "house_rule_chemical";--> statement-breakpoint
ALTER TABLE "shelf_entry" ADD CONSTRAINT "shelf_entry_model_id_model_id_fk" FOREIGN KEY ("model_id") REFERENCES "public"."model"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "shelf_entry_by_flow" ON "shelf_entry" USING btree ("rated_flow" DESC NULLS LAST,"model_id" DESC NULLS LAST);--> statement-breakpoint
ALTER TABLE "house_rule" ADD CONSTRAINT "house_rule_chemical" CHECK ("house_rule"."chemical" in ('none', 'last', 'after-straining', 'after-fine'));--> statement-breakpoint
CREATE FUNCTION "touch_shelf"(ids uuid[]) RETURNS void LANGUAGE plpgsql AS $$
DECLARE touched uuid;
BEGIN
	-- In one order, so that two writers never wait for each other.
	FOR touched IN SELECT DISTINCT id FROM unnest(ids) AS id WHERE id IS NOT NULL ORDER BY id LOOP
		INSERT INTO shelf_entry (model_id) SELECT touched WHERE EXISTS (SELECT FROM model WHERE id = touched)
			ON CONFLICT (model_id) DO UPDATE SET revision = shelf_entry.revision + 1;
		PERFORM pg_notify('record', json_build_object('model', touched, 'by', current_setting('ypsometer.by', true))::text);
	END LOOP;
END $$;
--> statement-breakpoint
CREATE FUNCTION "touched_directly"() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
	PERFORM touch_shelf(ARRAY(SELECT model_id FROM written));
	RETURN NULL;
END $$;
--> statement-breakpoint
CREATE FUNCTION "touched_model"() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
	PERFORM touch_shelf(ARRAY(SELECT id FROM written));
	RETURN NULL;
END $$;
--> statement-breakpoint
CREATE FUNCTION "touched_through_trial"() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
	PERFORM touch_shelf(ARRAY(SELECT t.model_id FROM written w JOIN trial t ON t.id = w.trial_id));
	RETURN NULL;
END $$;
--> statement-breakpoint
CREATE FUNCTION "touched_photo"() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
	PERFORM touch_shelf(ARRAY(SELECT coalesce(p.model_id, t.model_id) FROM written w
		LEFT JOIN part p ON p.id = w.part_id LEFT JOIN trial t ON t.id = w.trial_id));
	RETURN NULL;
END $$;
--> statement-breakpoint
CREATE FUNCTION "touched_claim"() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
	PERFORM touch_shelf(ARRAY(SELECT model_id FROM written));
	UPDATE shelf_entry s SET rated_flow = coalesce((SELECT c.value FROM claim c WHERE c.model_id = s.model_id
		AND c.quantity = 'rated-flow' AND c.deleted_at IS NULL ORDER BY c.created_at, c.id LIMIT 1), 0)
		WHERE s.model_id IN (SELECT model_id FROM written WHERE quantity = 'rated-flow');
	RETURN NULL;
END $$;
--> statement-breakpoint
CREATE FUNCTION "touched_list"() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
	IF EXISTS (SELECT FROM written) THEN
		PERFORM pg_notify('record', json_build_object('list', TG_ARGV[0], 'by', current_setting('ypsometer.by', true))::text);
	END IF;
	RETURN NULL;
END $$;
--> statement-breakpoint
DO $$
DECLARE entry record;
BEGIN
	FOR entry IN SELECT * FROM (VALUES
		('model', 'touched_model()'), ('claim', 'touched_claim()'), ('photo', 'touched_photo()'),
		('specimen', 'touched_directly()'), ('hookup', 'touched_directly()'), ('trial', 'touched_directly()'),
		('content_item', 'touched_directly()'), ('part', 'touched_directly()'), ('body', 'touched_directly()'),
		('chamber', 'touched_directly()'), ('fill', 'touched_directly()'),
		('reading', 'touched_through_trial()'), ('log', 'touched_through_trial()'),
		('tank', 'touched_list(''tanks'')'), ('medium', 'touched_list(''media'')'),
		('house_rule', 'touched_list(''house-rules'')')
	) AS t(tbl, fn) LOOP
		EXECUTE format('CREATE TRIGGER touch_on_insert AFTER INSERT ON %I REFERENCING NEW TABLE AS written FOR EACH STATEMENT EXECUTE FUNCTION %s', entry.tbl, entry.fn);
		EXECUTE format('CREATE TRIGGER touch_on_update AFTER UPDATE ON %I REFERENCING NEW TABLE AS written FOR EACH STATEMENT EXECUTE FUNCTION %s', entry.tbl, entry.fn);
	END LOOP;
END $$;
--> statement-breakpoint
INSERT INTO shelf_entry (model_id, rated_flow) SELECT m.id, coalesce((SELECT c.value FROM claim c WHERE c.model_id = m.id
	AND c.quantity = 'rated-flow' AND c.deleted_at IS NULL ORDER BY c.created_at, c.id LIMIT 1), 0) FROM model m;
