CREATE TABLE "model" (
	"id" uuid PRIMARY KEY NOT NULL,
	"studio_id" uuid NOT NULL,
	"singer_id" uuid,
	"exercise_id" text NOT NULL,
	"manner" text NOT NULL,
	"wav" "bytea" NOT NULL,
	"made_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "model_one" UNIQUE NULLS NOT DISTINCT("studio_id","exercise_id","manner","singer_id"),
	CONSTRAINT "model_manner" CHECK ("model"."manner" in ('like-this', 'not-like-this'))
);
--> statement-breakpoint
ALTER TABLE "model" ADD CONSTRAINT "model_studio_id_studio_id_fk" FOREIGN KEY ("studio_id") REFERENCES "public"."studio"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "model" ADD CONSTRAINT "model_singer" FOREIGN KEY ("studio_id","singer_id") REFERENCES "public"."singer"("studio_id","id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
GRANT SELECT, INSERT, UPDATE, DELETE ON model TO wendel_app;
--> statement-breakpoint
ALTER TABLE model ENABLE ROW LEVEL SECURITY;
--> statement-breakpoint
CREATE POLICY own_studio ON model TO wendel_app
  USING (studio_id = nullif(current_setting('wendel.studio', true), '')::uuid)
  WITH CHECK (studio_id = nullif(current_setting('wendel.studio', true), '')::uuid);
--> statement-breakpoint
CREATE TRIGGER audited AFTER INSERT OR UPDATE OR DELETE ON model FOR EACH ROW EXECUTE FUNCTION audit_change();
