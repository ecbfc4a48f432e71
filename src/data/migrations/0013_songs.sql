CREATE TABLE "repertoire" (
	"studio_id" uuid NOT NULL,
	"singer_id" uuid NOT NULL,
	"song_id" uuid NOT NULL,
	"chosen" jsonb NOT NULL,
	"changed_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "repertoire_singer_id_song_id_pk" PRIMARY KEY("singer_id","song_id")
);
--> statement-breakpoint
CREATE TABLE "song" (
	"id" uuid PRIMARY KEY NOT NULL,
	"studio_id" uuid NOT NULL,
	"song" jsonb NOT NULL,
	"note" text DEFAULT '' NOT NULL,
	"changed_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "song_studio_id" UNIQUE("studio_id","id")
);
--> statement-breakpoint
CREATE TABLE "song_take" (
	"take_id" uuid PRIMARY KEY NOT NULL,
	"studio_id" uuid NOT NULL,
	"song_id" uuid NOT NULL,
	"semitones" integer NOT NULL,
	"predicted" jsonb NOT NULL,
	"heard" jsonb,
	CONSTRAINT "song_take_semitones" CHECK ("song_take"."semitones" between -36 and 36)
);
--> statement-breakpoint
ALTER TABLE "repertoire" ADD CONSTRAINT "repertoire_studio_id_studio_id_fk" FOREIGN KEY ("studio_id") REFERENCES "public"."studio"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "repertoire" ADD CONSTRAINT "repertoire_singer" FOREIGN KEY ("studio_id","singer_id") REFERENCES "public"."singer"("studio_id","id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "repertoire" ADD CONSTRAINT "repertoire_song" FOREIGN KEY ("studio_id","song_id") REFERENCES "public"."song"("studio_id","id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "song" ADD CONSTRAINT "song_studio_id_studio_id_fk" FOREIGN KEY ("studio_id") REFERENCES "public"."studio"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "song_take" ADD CONSTRAINT "song_take_studio_id_studio_id_fk" FOREIGN KEY ("studio_id") REFERENCES "public"."studio"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "song_take" ADD CONSTRAINT "song_take_take" FOREIGN KEY ("studio_id","take_id") REFERENCES "public"."take"("studio_id","id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "song_take" ADD CONSTRAINT "song_take_song" FOREIGN KEY ("studio_id","song_id") REFERENCES "public"."song"("studio_id","id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "song_by_studio" ON "song" USING btree ("studio_id");--> statement-breakpoint
CREATE INDEX "song_take_by_song" ON "song_take" USING btree ("song_id");
--> statement-breakpoint
GRANT SELECT, INSERT, UPDATE, DELETE ON song, repertoire, song_take TO wendel_app;
--> statement-breakpoint
DO $$
DECLARE
  t text;
BEGIN
  FOREACH t IN ARRAY ARRAY['song', 'repertoire', 'song_take'] LOOP
    EXECUTE format('ALTER TABLE %I ENABLE ROW LEVEL SECURITY', t);
    EXECUTE format(
      'CREATE POLICY own_studio ON %I TO wendel_app USING (studio_id = nullif(current_setting(''wendel.studio'', true), '''')::uuid) WITH CHECK (studio_id = nullif(current_setting(''wendel.studio'', true), '''')::uuid)', t);
  END LOOP;
END $$;
--> statement-breakpoint
-- What was heard of a take is no change of anybody's: song_take goes without.
CREATE TRIGGER audited AFTER INSERT OR UPDATE OR DELETE ON song FOR EACH ROW EXECUTE FUNCTION audit_change();
--> statement-breakpoint
CREATE TRIGGER audited AFTER INSERT OR UPDATE OR DELETE ON repertoire FOR EACH ROW EXECUTE FUNCTION audit_change();
