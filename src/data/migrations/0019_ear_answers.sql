CREATE TABLE "ear_answer" (
	"id" uuid PRIMARY KEY NOT NULL,
	"studio_id" uuid NOT NULL,
	"take_id" uuid NOT NULL,
	"coach_id" text NOT NULL,
	"start_s" double precision NOT NULL,
	"end_s" double precision NOT NULL,
	"direction" text NOT NULL,
	"name" text NOT NULL,
	"midi" double precision,
	"machine_name" text NOT NULL,
	"machine_midi" double precision,
	"said_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "ear_answer_direction" CHECK ("ear_answer"."direction" in ('up','down')),
	CONSTRAINT "ear_answer_name" CHECK ("ear_answer"."name" in ('flip','toggle','blended','none')),
	CONSTRAINT "ear_answer_machine_name" CHECK ("ear_answer"."machine_name" in ('flip','toggle','blended','none'))
);
--> statement-breakpoint
ALTER TABLE "ear_answer" ADD CONSTRAINT "ear_answer_studio_id_studio_id_fk" FOREIGN KEY ("studio_id") REFERENCES "public"."studio"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "ear_answer" ADD CONSTRAINT "ear_answer_take" FOREIGN KEY ("studio_id","take_id") REFERENCES "public"."take"("studio_id","id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "ear_answer_by_take" ON "ear_answer" USING btree ("take_id");--> statement-breakpoint
CREATE INDEX "ear_answer_by_studio" ON "ear_answer" USING btree ("studio_id","machine_name");--> statement-breakpoint
GRANT SELECT, INSERT, UPDATE, DELETE ON ear_answer TO wendel_app;
--> statement-breakpoint
ALTER TABLE ear_answer ENABLE ROW LEVEL SECURITY;
--> statement-breakpoint
CREATE POLICY own_studio ON ear_answer TO wendel_app
  USING (studio_id = nullif(current_setting('wendel.studio', true), '')::uuid)
  WITH CHECK (studio_id = nullif(current_setting('wendel.studio', true), '')::uuid);
--> statement-breakpoint
CREATE TRIGGER audited AFTER INSERT OR DELETE ON ear_answer FOR EACH ROW EXECUTE FUNCTION audit_change();
