CREATE TRIGGER history_not_emptied BEFORE TRUNCATE ON "row_change" FOR EACH STATEMENT EXECUTE FUNCTION history_stays();
--> statement-breakpoint
CREATE FUNCTION "done_now"() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
	IF abs(extract(epoch FROM NEW.at - clock_timestamp())) > 600 THEN
		RAISE EXCEPTION 'what was done is written down when it is done' USING ERRCODE = '23001';
	END IF;
	RETURN NEW;
END $$;
--> statement-breakpoint
CREATE TRIGGER done_now BEFORE INSERT ON "row_change" FOR EACH ROW EXECUTE FUNCTION done_now();
--> statement-breakpoint
CREATE FUNCTION "editions_stay"() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
	RAISE EXCEPTION 'what was published is never taken away' USING ERRCODE = '23001';
END $$;
--> statement-breakpoint
CREATE TRIGGER editions_not_emptied BEFORE TRUNCATE ON "review_edition" FOR EACH STATEMENT EXECUTE FUNCTION editions_stay();
