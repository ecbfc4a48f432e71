CREATE TABLE "exercise" (
	"id" uuid PRIMARY KEY NOT NULL,
	"studio_id" uuid NOT NULL,
	"exercise" jsonb NOT NULL,
	"changed_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "template" (
	"id" uuid PRIMARY KEY NOT NULL,
	"studio_id" uuid NOT NULL,
	"name" text NOT NULL,
	"items" jsonb NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
ALTER TABLE "assignment" ADD COLUMN "starts_on" date;--> statement-breakpoint
ALTER TABLE "singer" ADD COLUMN "terms" jsonb;--> statement-breakpoint
ALTER TABLE "singer" ADD COLUMN "plan_edits" jsonb;--> statement-breakpoint
ALTER TABLE "exercise" ADD CONSTRAINT "exercise_studio_id_studio_id_fk" FOREIGN KEY ("studio_id") REFERENCES "public"."studio"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "template" ADD CONSTRAINT "template_studio_id_studio_id_fk" FOREIGN KEY ("studio_id") REFERENCES "public"."studio"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
GRANT SELECT, INSERT, UPDATE, DELETE ON exercise, template TO wendel_app;
--> statement-breakpoint
DO $$
DECLARE
  t text;
BEGIN
  FOREACH t IN ARRAY ARRAY['exercise', 'template'] LOOP
    EXECUTE format('ALTER TABLE %I ENABLE ROW LEVEL SECURITY', t);
    EXECUTE format(
      'CREATE POLICY own_studio ON %I TO wendel_app USING (studio_id = nullif(current_setting(''wendel.studio'', true), '''')::uuid) WITH CHECK (studio_id = nullif(current_setting(''wendel.studio'', true), '''')::uuid)', t);
  END LOOP;
END $$;
