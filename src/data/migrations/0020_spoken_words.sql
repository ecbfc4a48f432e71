CREATE TABLE "spoken_word" (
	"id" uuid PRIMARY KEY NOT NULL,
	"studio_id" uuid NOT NULL,
	"singer_id" uuid NOT NULL,
	"wav" "bytea" NOT NULL,
	"spoken_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
DROP INDEX "practice_words";--> statement-breakpoint
ALTER TABLE "spoken_word" ADD CONSTRAINT "spoken_word_studio_id_studio_id_fk" FOREIGN KEY ("studio_id") REFERENCES "public"."studio"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "spoken_word" ADD CONSTRAINT "spoken_word_singer" FOREIGN KEY ("studio_id","singer_id") REFERENCES "public"."singer"("studio_id","id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "spoken_word_by_singer" ON "spoken_word" USING btree ("singer_id","spoken_at");--> statement-breakpoint
CREATE INDEX "practice_unanswered" ON "practice" USING btree ("singer_id","day","studio_id") WHERE what ?| array['word', 'spokenS'] and answer = '';--> statement-breakpoint
GRANT SELECT, INSERT, UPDATE, DELETE ON spoken_word TO wendel_app;
--> statement-breakpoint
ALTER TABLE spoken_word ENABLE ROW LEVEL SECURITY;
--> statement-breakpoint
CREATE POLICY own_studio ON spoken_word TO wendel_app
  USING (studio_id = nullif(current_setting('wendel.studio', true), '')::uuid)
  WITH CHECK (studio_id = nullif(current_setting('wendel.studio', true), '')::uuid);
--> statement-breakpoint
CREATE TRIGGER audited AFTER INSERT OR DELETE ON spoken_word FOR EACH ROW EXECUTE FUNCTION audit_change();
