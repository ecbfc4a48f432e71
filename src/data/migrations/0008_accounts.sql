CREATE TABLE "audit" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"studio_id" uuid NOT NULL,
	"at" timestamp with time zone DEFAULT now() NOT NULL,
	"actor" text NOT NULL,
	"did" text NOT NULL,
	"what" text NOT NULL,
	"columns" text[],
	"what_id" text,
	"singer_id" uuid
);
--> statement-breakpoint
CREATE TABLE "coach" (
	"id" text PRIMARY KEY NOT NULL,
	"name" text NOT NULL,
	"email" text NOT NULL,
	"email_verified" boolean DEFAULT false NOT NULL,
	"image" text,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"updated_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "coach_email_unique" UNIQUE("email")
);
--> statement-breakpoint
CREATE TABLE "credential" (
	"id" text PRIMARY KEY NOT NULL,
	"user_id" text NOT NULL,
	"account_id" text NOT NULL,
	"provider_id" text NOT NULL,
	"access_token" text,
	"refresh_token" text,
	"id_token" text,
	"access_token_expires_at" timestamp with time zone,
	"refresh_token_expires_at" timestamp with time zone,
	"scope" text,
	"password" text,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"updated_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "invite" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"studio_id" uuid NOT NULL,
	"email" text NOT NULL,
	"role" text NOT NULL,
	"token_hash" text NOT NULL,
	"expires_at" timestamp with time zone NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "invite_token_hash_unique" UNIQUE("token_hash"),
	CONSTRAINT "invite_role" CHECK ("invite"."role" in ('owner','coach','reader'))
);
--> statement-breakpoint
CREATE TABLE "member" (
	"user_id" text PRIMARY KEY NOT NULL,
	"studio_id" uuid NOT NULL,
	"role" text NOT NULL,
	"joined_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "member_role" CHECK ("member"."role" in ('owner','coach','reader'))
);
--> statement-breakpoint
CREATE TABLE "session" (
	"id" text PRIMARY KEY NOT NULL,
	"user_id" text NOT NULL,
	"token" text NOT NULL,
	"expires_at" timestamp with time zone NOT NULL,
	"ip_address" text,
	"user_agent" text,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"updated_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "session_token_unique" UNIQUE("token")
);
--> statement-breakpoint
CREATE TABLE "verification" (
	"id" text PRIMARY KEY NOT NULL,
	"identifier" text NOT NULL,
	"value" text NOT NULL,
	"expires_at" timestamp with time zone NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"updated_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
ALTER TABLE "message" ADD COLUMN "address" text;--> statement-breakpoint
ALTER TABLE "message" ADD COLUMN "for_owners" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "message" ADD COLUMN "problem" text;--> statement-breakpoint
ALTER TABLE "singer" ADD COLUMN "email" text;--> statement-breakpoint
ALTER TABLE "studio" ADD COLUMN "keep_months" integer;--> statement-breakpoint
ALTER TABLE "take" ADD COLUMN "sound_removed_at" timestamp with time zone;--> statement-breakpoint
ALTER TABLE "audit" ADD CONSTRAINT "audit_studio_id_studio_id_fk" FOREIGN KEY ("studio_id") REFERENCES "public"."studio"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "audit" ADD CONSTRAINT "audit_singer" FOREIGN KEY ("studio_id","singer_id") REFERENCES "public"."singer"("studio_id","id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "credential" ADD CONSTRAINT "credential_user_id_coach_id_fk" FOREIGN KEY ("user_id") REFERENCES "public"."coach"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "invite" ADD CONSTRAINT "invite_studio_id_studio_id_fk" FOREIGN KEY ("studio_id") REFERENCES "public"."studio"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "member" ADD CONSTRAINT "member_user_id_coach_id_fk" FOREIGN KEY ("user_id") REFERENCES "public"."coach"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "member" ADD CONSTRAINT "member_studio_id_studio_id_fk" FOREIGN KEY ("studio_id") REFERENCES "public"."studio"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "session" ADD CONSTRAINT "session_user_id_coach_id_fk" FOREIGN KEY ("user_id") REFERENCES "public"."coach"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "audit_by_studio" ON "audit" USING btree ("studio_id","at");--> statement-breakpoint
CREATE INDEX "audit_by_singer" ON "audit" USING btree ("singer_id","at");--> statement-breakpoint
CREATE INDEX "credential_by_coach" ON "credential" USING btree ("user_id");--> statement-breakpoint
CREATE INDEX "member_by_studio" ON "member" USING btree ("studio_id");--> statement-breakpoint
CREATE INDEX "session_by_coach" ON "session" USING btree ("user_id");--> statement-breakpoint
CREATE INDEX "verification_by_identifier" ON "verification" USING btree ("identifier");
--> statement-breakpoint
-- Who may come in is the door's business alone (the role wendel_door, src/data/door.ts): the application's role has no right to these
-- tables, so that nothing it can be talked into reads a password's hash or gives itself a place in a studio.
DO $$
DECLARE
  t text;
BEGIN
  FOREACH t IN ARRAY ARRAY['coach', 'session', 'credential', 'verification', 'member', 'invite'] LOOP
    EXECUTE format('REVOKE ALL ON %I FROM wendel_app', t);
    EXECUTE format('GRANT SELECT, INSERT, UPDATE, DELETE ON %I TO wendel_door', t);
    EXECUTE format('ALTER TABLE %I ENABLE ROW LEVEL SECURITY', t);
    EXECUTE format('CREATE POLICY door ON %I TO wendel_door USING (true) WITH CHECK (true)', t);
  END LOOP;
END $$;
--> statement-breakpoint
GRANT USAGE ON SCHEMA public TO wendel_door;
--> statement-breakpoint
GRANT SELECT, INSERT ON studio TO wendel_door;
--> statement-breakpoint
CREATE POLICY door ON studio TO wendel_door USING (true) WITH CHECK (true);
--> statement-breakpoint
-- A studio's own row is seen and changed from inside only, now that there may be several.
DROP POLICY see_studio ON studio;
--> statement-breakpoint
DROP POLICY IF EXISTS change_own_studio ON studio;
--> statement-breakpoint
CREATE POLICY own_studio ON studio TO wendel_app
  USING (id = nullif(current_setting('wendel.studio', true), '')::uuid)
  WITH CHECK (id = nullif(current_setting('wendel.studio', true), '')::uuid);
--> statement-breakpoint
REVOKE INSERT, DELETE ON studio FROM wendel_app;
--> statement-breakpoint
-- The analysis and the sweep go through all studios: their ids, and nothing else of them.
CREATE FUNCTION studio_ids() RETURNS SETOF uuid LANGUAGE sql STABLE SECURITY DEFINER SET search_path = public AS
  'SELECT id FROM studio ORDER BY created_at, id';
--> statement-breakpoint
REVOKE ALL ON FUNCTION studio_ids() FROM PUBLIC;
--> statement-breakpoint
GRANT EXECUTE ON FUNCTION studio_ids() TO wendel_app;
--> statement-breakpoint
ALTER TABLE audit ENABLE ROW LEVEL SECURITY;
--> statement-breakpoint
-- The application reads the log of its studio and adds looks; it can change or take away nothing.
GRANT SELECT, INSERT ON audit TO wendel_app;
--> statement-breakpoint
GRANT INSERT ON audit TO wendel_door;
--> statement-breakpoint
CREATE POLICY own_studio ON audit TO wendel_app
  USING (studio_id = nullif(current_setting('wendel.studio', true), '')::uuid)
  WITH CHECK (studio_id = nullif(current_setting('wendel.studio', true), '')::uuid);
--> statement-breakpoint
CREATE POLICY door ON audit FOR INSERT TO wendel_door WITH CHECK (true);
--> statement-breakpoint
-- Each change of what a person entered is logged where it happens, so that no new code can forget to. What the machine works out
-- (a map kept, evidence counted, an axis found) is no change of anybody's.
CREATE FUNCTION audit_change() RETURNS trigger LANGUAGE plpgsql SECURITY DEFINER SET search_path = public AS $$
DECLARE
  was jsonb := CASE WHEN TG_OP = 'INSERT' THEN '{}'::jsonb ELSE to_jsonb(OLD) END;
  now_is jsonb := CASE WHEN TG_OP = 'DELETE' THEN to_jsonb(OLD) ELSE to_jsonb(NEW) END;
  whose uuid;
  who text := coalesce(nullif(current_setting('wendel.actor', true), ''), 'Wendel itself');
  did text := CASE TG_OP WHEN 'INSERT' THEN 'added' WHEN 'UPDATE' THEN 'changed' ELSE 'deleted' END;
  changed text[];
BEGIN
  IF TG_OP = 'UPDATE' THEN
    SELECT array_agg(key ORDER BY key) INTO changed FROM jsonb_each(now_is)
      WHERE value IS DISTINCT FROM was -> key AND key NOT IN ('evidence', 'axis', 'bytes', 'used_at');
    IF changed IS NULL THEN RETURN NULL; END IF;
  END IF;
  whose := CASE TG_TABLE_NAME
    WHEN 'singer' THEN (now_is ->> 'id')::uuid
    WHEN 'mark' THEN (SELECT singer_id FROM take WHERE id = (now_is ->> 'take_id')::uuid)
    ELSE (now_is ->> 'singer_id')::uuid END;
  IF TG_TABLE_NAME = 'singer' AND TG_OP = 'DELETE' THEN
    -- That it happened, and nothing of whom.
    INSERT INTO audit (studio_id, actor, did, what) VALUES (OLD.studio_id, who, did, 'singer');
    RETURN NULL;
  END IF;
  -- Going with its singer or its studio: there is nobody left to note it about.
  IF TG_OP = 'DELETE' AND whose IS NULL AND TG_TABLE_NAME = 'mark' THEN RETURN NULL; END IF;
  IF whose IS NOT NULL AND NOT EXISTS (SELECT FROM singer WHERE id = whose) THEN RETURN NULL; END IF;
  IF TG_TABLE_NAME <> 'studio' AND NOT EXISTS (SELECT FROM studio WHERE id = (now_is ->> 'studio_id')::uuid) THEN RETURN NULL; END IF;
  -- Work that is kept step by step (a lesson, a plan) is one line for a while.
  IF TG_OP = 'UPDATE' THEN
    UPDATE audit SET at = now(), columns = (SELECT array_agg(DISTINCT c ORDER BY c) FROM unnest(columns || changed) c)
      WHERE studio_id = coalesce((now_is ->> 'studio_id')::uuid, (now_is ->> 'id')::uuid) AND actor = who AND audit.did = 'changed'
        AND what = TG_TABLE_NAME AND what_id = now_is ->> 'id' AND at > now() - interval '15 minutes';
    IF FOUND THEN RETURN NULL; END IF;
  END IF;
  INSERT INTO audit (studio_id, actor, did, what, columns, what_id, singer_id)
    VALUES (coalesce((now_is ->> 'studio_id')::uuid, (now_is ->> 'id')::uuid), who, did, TG_TABLE_NAME, changed, now_is ->> 'id', whose);
  RETURN NULL;
END $$;
--> statement-breakpoint
DO $$
DECLARE
  t text;
BEGIN
  FOREACH t IN ARRAY ARRAY['singer', 'lesson', 'protocol', 'exercise', 'template', 'pin', 'take', 'mark', 'assignment', 'link'] LOOP
    EXECUTE format('CREATE TRIGGER audited AFTER INSERT OR UPDATE OR DELETE ON %I FOR EACH ROW EXECUTE FUNCTION audit_change()', t);
  END LOOP;
END $$;
--> statement-breakpoint
-- A line of practice is a log itself: only touching one afterwards is worth a line here.
CREATE TRIGGER audited AFTER UPDATE OR DELETE ON practice FOR EACH ROW EXECUTE FUNCTION audit_change();
--> statement-breakpoint
CREATE TRIGGER audited AFTER UPDATE ON studio FOR EACH ROW EXECUTE FUNCTION audit_change();
