-- What earlier versions let through, before it is refused.
UPDATE studio SET keep_months = NULL WHERE keep_months NOT BETWEEN 1 AND 120;
--> statement-breakpoint
UPDATE take SET lesson_id = NULL WHERE lesson_id IS NOT NULL
  AND NOT EXISTS (SELECT FROM lesson WHERE lesson.id = take.lesson_id AND lesson.studio_id = take.studio_id);
--> statement-breakpoint
UPDATE practice SET assignment_id = NULL WHERE assignment_id IS NOT NULL
  AND NOT EXISTS (SELECT FROM assignment WHERE assignment.id = practice.assignment_id AND assignment.studio_id = practice.studio_id);
--> statement-breakpoint
CREATE TABLE "tries" (
	"key" text PRIMARY KEY NOT NULL,
	"points" integer DEFAULT 0 NOT NULL,
	"expire" bigint
);
--> statement-breakpoint
ALTER TABLE "practice" DROP CONSTRAINT "practice_assignment_id_assignment_id_fk";
--> statement-breakpoint
ALTER TABLE "take" DROP CONSTRAINT "take_lesson";
--> statement-breakpoint
ALTER TABLE "audit" ADD COLUMN "actor_id" text;--> statement-breakpoint
ALTER TABLE "audit" ADD COLUMN "detail" text;--> statement-breakpoint
ALTER TABLE "studio" ADD COLUMN "keep_months_since" timestamp with time zone DEFAULT now() NOT NULL;--> statement-breakpoint
ALTER TABLE "assignment" ADD CONSTRAINT "assignment_studio_id" UNIQUE("studio_id","id");--> statement-breakpoint
ALTER TABLE "lesson" ADD CONSTRAINT "lesson_studio_id" UNIQUE("studio_id","id");--> statement-breakpoint
ALTER TABLE "practice" ADD CONSTRAINT "practice_assignment" FOREIGN KEY ("studio_id","assignment_id") REFERENCES "public"."assignment"("studio_id","id") ON DELETE set null ("assignment_id") ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "take" ADD CONSTRAINT "take_lesson" FOREIGN KEY ("studio_id","lesson_id") REFERENCES "public"."lesson"("studio_id","id") ON DELETE set null ("lesson_id") ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "studio" ADD CONSTRAINT "studio_keep_months" CHECK ("studio"."keep_months" between 1 and 120);
--> statement-breakpoint
REVOKE ALL ON tries FROM wendel_app;
--> statement-breakpoint
GRANT SELECT, INSERT, UPDATE, DELETE ON tries TO wendel_door;
--> statement-breakpoint
ALTER TABLE tries ENABLE ROW LEVEL SECURITY;
--> statement-breakpoint
CREATE POLICY door ON tries TO wendel_door USING (true) WITH CHECK (true);
--> statement-breakpoint
-- What runs with the owner's rights looks names up where nobody else can put any: a temporary table comes before all others unless
-- pg_temp is named last, and nobody may make one here anyway.
DO $$ BEGIN
  EXECUTE format('REVOKE TEMPORARY ON DATABASE %I FROM PUBLIC', current_database());
END $$;
--> statement-breakpoint
ALTER FUNCTION studio_ids() SET search_path = pg_catalog, public, pg_temp;
--> statement-breakpoint
CREATE OR REPLACE FUNCTION audit_change() RETURNS trigger LANGUAGE plpgsql SECURITY DEFINER
SET search_path = pg_catalog, public, pg_temp AS $$
DECLARE
  was jsonb := CASE WHEN TG_OP = 'INSERT' THEN '{}'::jsonb ELSE to_jsonb(OLD) END;
  now_is jsonb := CASE WHEN TG_OP = 'DELETE' THEN to_jsonb(OLD) ELSE to_jsonb(NEW) END;
  whose uuid;
  who text := coalesce(nullif(current_setting('wendel.actor', true), ''), 'Wendel itself');
  who_id text := nullif(current_setting('wendel.actor_id', true), '');
  did text := CASE TG_OP WHEN 'INSERT' THEN 'added' WHEN 'UPDATE' THEN 'changed' ELSE 'deleted' END;
  changed text[];
BEGIN
  IF TG_OP = 'UPDATE' THEN
    SELECT array_agg(key ORDER BY key) INTO changed FROM jsonb_each(now_is)
      WHERE value IS DISTINCT FROM was -> key AND key NOT IN ('evidence', 'axis', 'bytes', 'used_at', 'keep_months_since');
    IF changed IS NULL THEN RETURN NULL; END IF;
  END IF;
  whose := CASE TG_TABLE_NAME
    WHEN 'singer' THEN (now_is ->> 'id')::uuid
    WHEN 'mark' THEN (SELECT singer_id FROM public.take WHERE id = (now_is ->> 'take_id')::uuid)
    ELSE (now_is ->> 'singer_id')::uuid END;
  IF TG_TABLE_NAME = 'singer' AND TG_OP = 'DELETE' THEN
    -- That it happened, and nothing of whom.
    INSERT INTO public.audit (studio_id, actor, actor_id, did, what) VALUES (OLD.studio_id, who, who_id, did, 'singer');
    RETURN NULL;
  END IF;
  -- Going with its singer or its studio: there is nobody left to note it about.
  IF TG_OP = 'DELETE' AND whose IS NULL AND TG_TABLE_NAME = 'mark' THEN RETURN NULL; END IF;
  IF whose IS NOT NULL AND NOT EXISTS (SELECT FROM public.singer WHERE id = whose) THEN RETURN NULL; END IF;
  IF TG_TABLE_NAME <> 'studio' AND NOT EXISTS (SELECT FROM public.studio WHERE id = (now_is ->> 'studio_id')::uuid) THEN RETURN NULL; END IF;
  -- Work that is kept step by step (a lesson, a plan) is one line for a while.
  IF TG_OP = 'UPDATE' THEN
    UPDATE public.audit SET at = now(), columns = (SELECT array_agg(DISTINCT c ORDER BY c) FROM unnest(columns || changed) c)
      WHERE studio_id = coalesce((now_is ->> 'studio_id')::uuid, (now_is ->> 'id')::uuid) AND actor = who
        AND actor_id IS NOT DISTINCT FROM who_id AND audit.did = 'changed'
        AND what = TG_TABLE_NAME AND what_id = now_is ->> 'id' AND at > now() - interval '15 minutes';
    IF FOUND THEN RETURN NULL; END IF;
  END IF;
  INSERT INTO public.audit (studio_id, actor, actor_id, did, what, columns, what_id, singer_id)
    VALUES (coalesce((now_is ->> 'studio_id')::uuid, (now_is ->> 'id')::uuid), who, who_id, did, TG_TABLE_NAME, changed, now_is ->> 'id', whose);
  RETURN NULL;
END $$;
--> statement-breakpoint
REVOKE ALL ON FUNCTION audit_change() FROM PUBLIC;
--> statement-breakpoint
-- Who did what and when stays when a singer is deleted; about whom does not.
CREATE FUNCTION audit_without_singer() RETURNS trigger LANGUAGE plpgsql SECURITY DEFINER
SET search_path = pg_catalog, public, pg_temp AS $$
BEGIN
  UPDATE public.audit SET singer_id = NULL, what_id = NULL, detail = 'of a singer who was deleted'
    WHERE studio_id = OLD.studio_id AND singer_id = OLD.id;
  RETURN OLD;
END $$;
--> statement-breakpoint
REVOKE ALL ON FUNCTION audit_without_singer() FROM PUBLIC;
--> statement-breakpoint
CREATE TRIGGER audit_without_singer BEFORE DELETE ON singer FOR EACH ROW EXECUTE FUNCTION audit_without_singer();
--> statement-breakpoint
-- Keys to accounts that lie in the clear, from earlier versions: ask anew.
DELETE FROM verification WHERE identifier LIKE 'reset-password:%';
--> statement-breakpoint
-- What a singer's map rests on has changed: counted where it happens, so that no way in can forget to, be it a page, the analysis or a
-- bundle.
CREATE FUNCTION evidence_changed() RETURNS trigger LANGUAGE plpgsql SECURITY DEFINER
SET search_path = pg_catalog, public, pg_temp AS $$
DECLARE
  changed record;
  whose uuid;
BEGIN
  IF TG_OP = 'DELETE' THEN changed := OLD; ELSE changed := NEW; END IF;
  IF TG_TABLE_NAME = 'take' THEN whose := changed.singer_id;
  ELSE SELECT singer_id INTO whose FROM public.take WHERE id = changed.take_id;
  END IF;
  UPDATE public.singer SET evidence = evidence + 1 WHERE id = whose;
  RETURN NULL;
END $$;
--> statement-breakpoint
REVOKE ALL ON FUNCTION evidence_changed() FROM PUBLIC;
--> statement-breakpoint
CREATE TRIGGER evidence_changed AFTER DELETE ON take FOR EACH ROW EXECUTE FUNCTION evidence_changed();
--> statement-breakpoint
CREATE TRIGGER evidence_changed AFTER INSERT OR UPDATE ON analysis FOR EACH ROW EXECUTE FUNCTION evidence_changed();
--> statement-breakpoint
CREATE TRIGGER evidence_changed AFTER INSERT OR UPDATE OR DELETE ON mark FOR EACH ROW EXECUTE FUNCTION evidence_changed();
