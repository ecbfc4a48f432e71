-- What somebody's page waits for is told as it is stored: a take that was heard, a line that was practised. Workers and every web
-- process hear it (src/data/events.ts); a transaction that fails tells nothing.
CREATE FUNCTION tell_change() RETURNS trigger LANGUAGE plpgsql
SET search_path = pg_catalog, public, pg_temp AS $$
BEGIN
  PERFORM pg_notify('wendel_changes', json_build_object('studioId', NEW.studio_id, 'what', TG_ARGV[0], 'id', to_jsonb(NEW) ->> TG_ARGV[1])::text);
  RETURN NULL;
END $$;
--> statement-breakpoint
CREATE TRIGGER tell_change AFTER INSERT OR UPDATE ON analysis FOR EACH ROW EXECUTE FUNCTION tell_change('take heard', 'take_id');
--> statement-breakpoint
CREATE TRIGGER tell_change AFTER INSERT OR UPDATE ON practice FOR EACH ROW EXECUTE FUNCTION tell_change('practised', 'singer_id');
