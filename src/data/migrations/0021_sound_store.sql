CREATE TABLE "sound_to_delete" (
	"studio_id" uuid NOT NULL,
	"key" text PRIMARY KEY NOT NULL,
	"gone_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
ALTER TABLE "take_audio" ALTER COLUMN "bytes" DROP NOT NULL;--> statement-breakpoint
ALTER TABLE "take_audio" ADD COLUMN "stored_as" text;--> statement-breakpoint
CREATE INDEX "sound_to_delete_by_studio" ON "sound_to_delete" USING btree ("studio_id","gone_at");--> statement-breakpoint
CREATE INDEX "take_audio_here" ON "take_audio" USING btree ("studio_id") WHERE bytes is not null;--> statement-breakpoint
ALTER TABLE "take_audio" ADD CONSTRAINT "take_audio_somewhere" CHECK ("take_audio"."bytes" is not null or "take_audio"."stored_as" is not null);--> statement-breakpoint
GRANT SELECT, INSERT, UPDATE, DELETE ON sound_to_delete TO wendel_app;
--> statement-breakpoint
ALTER TABLE sound_to_delete ENABLE ROW LEVEL SECURITY;
--> statement-breakpoint
CREATE POLICY own_studio ON sound_to_delete TO wendel_app
  USING (studio_id = nullif(current_setting('wendel.studio', true), '')::uuid)
  WITH CHECK (studio_id = nullif(current_setting('wendel.studio', true), '')::uuid);
--> statement-breakpoint
-- What lies in the sound store goes with its row, by whatever way that goes: a take discarded, a singer deleted, a time that is over.
CREATE FUNCTION delete_stored_sound() RETURNS trigger LANGUAGE plpgsql SECURITY DEFINER
SET search_path = pg_catalog, public, pg_temp AS $$
BEGIN
  INSERT INTO public.sound_to_delete (studio_id, key) VALUES (OLD.studio_id, OLD.stored_as)
    ON CONFLICT (key) DO UPDATE SET gone_at = now();
  RETURN NULL;
END $$;
--> statement-breakpoint
REVOKE ALL ON FUNCTION delete_stored_sound() FROM PUBLIC;
--> statement-breakpoint
CREATE TRIGGER delete_stored_sound AFTER DELETE ON take_audio FOR EACH ROW WHEN (OLD.stored_as IS NOT NULL)
  EXECUTE FUNCTION delete_stored_sound();
