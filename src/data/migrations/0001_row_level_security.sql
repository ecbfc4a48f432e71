-- The second lock: the application role sees and writes only the studio named in the setting wendel.studio,
-- which every transaction sets for itself (src/data/client.ts). No setting, no rows.
GRANT USAGE ON SCHEMA public TO wendel_app;
--> statement-breakpoint
GRANT SELECT, INSERT, UPDATE, DELETE ON ALL TABLES IN SCHEMA public TO wendel_app;
--> statement-breakpoint
DO $$
DECLARE
  t text;
BEGIN
  FOREACH t IN ARRAY ARRAY['singer', 'take', 'take_audio', 'analysis', 'mark', 'assignment'] LOOP
    EXECUTE format('ALTER TABLE %I ENABLE ROW LEVEL SECURITY', t);
    EXECUTE format(
      'CREATE POLICY own_studio ON %I TO wendel_app USING (studio_id = nullif(current_setting(''wendel.studio'', true), '''')::uuid) WITH CHECK (studio_id = nullif(current_setting(''wendel.studio'', true), '''')::uuid)', t);
  END LOOP;
END $$;
--> statement-breakpoint
ALTER TABLE studio ENABLE ROW LEVEL SECURITY;
--> statement-breakpoint
-- Until accounts come there is one studio, found by looking; it can be read by the application but only made by the owner.
CREATE POLICY see_studio ON studio FOR SELECT TO wendel_app USING (true);
