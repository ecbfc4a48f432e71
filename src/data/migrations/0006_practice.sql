CREATE TABLE "link" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"studio_id" uuid NOT NULL,
	"singer_id" uuid NOT NULL,
	"token_hash" text NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"expires_at" timestamp with time zone NOT NULL,
	"revoked_at" timestamp with time zone,
	"used_at" timestamp with time zone,
	CONSTRAINT "link_token_hash_unique" UNIQUE("token_hash"),
	CONSTRAINT "link_token_hash" CHECK ("link"."token_hash" ~ '^[0-9a-f]{64}$')
);
--> statement-breakpoint
CREATE TABLE "message" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"studio_id" uuid NOT NULL,
	"singer_id" uuid,
	"recipient" text NOT NULL,
	"subject" text NOT NULL,
	"body" text NOT NULL,
	"made_at" timestamp with time zone DEFAULT now() NOT NULL,
	"sent_at" timestamp with time zone
);
--> statement-breakpoint
CREATE TABLE "practice" (
	"id" uuid PRIMARY KEY NOT NULL,
	"studio_id" uuid NOT NULL,
	"singer_id" uuid NOT NULL,
	"assignment_id" uuid,
	"day" date NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"what" jsonb NOT NULL,
	"received_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
ALTER TABLE "link" ADD CONSTRAINT "link_studio_id_studio_id_fk" FOREIGN KEY ("studio_id") REFERENCES "public"."studio"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "link" ADD CONSTRAINT "link_singer" FOREIGN KEY ("studio_id","singer_id") REFERENCES "public"."singer"("studio_id","id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "message" ADD CONSTRAINT "message_studio_id_studio_id_fk" FOREIGN KEY ("studio_id") REFERENCES "public"."studio"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "message" ADD CONSTRAINT "message_singer" FOREIGN KEY ("studio_id","singer_id") REFERENCES "public"."singer"("studio_id","id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "practice" ADD CONSTRAINT "practice_studio_id_studio_id_fk" FOREIGN KEY ("studio_id") REFERENCES "public"."studio"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "practice" ADD CONSTRAINT "practice_assignment_id_assignment_id_fk" FOREIGN KEY ("assignment_id") REFERENCES "public"."assignment"("id") ON DELETE set null ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "practice" ADD CONSTRAINT "practice_singer" FOREIGN KEY ("studio_id","singer_id") REFERENCES "public"."singer"("studio_id","id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "link_by_singer" ON "link" USING btree ("singer_id");--> statement-breakpoint
CREATE INDEX "message_by_studio" ON "message" USING btree ("studio_id","made_at");--> statement-breakpoint
CREATE INDEX "practice_by_singer" ON "practice" USING btree ("singer_id","day");--> statement-breakpoint
GRANT SELECT, INSERT, UPDATE, DELETE ON link, message, practice TO wendel_app;
--> statement-breakpoint
DO $$
DECLARE
  t text;
BEGIN
  FOREACH t IN ARRAY ARRAY['link', 'message', 'practice'] LOOP
    EXECUTE format('ALTER TABLE %I ENABLE ROW LEVEL SECURITY', t);
    EXECUTE format(
      'CREATE POLICY own_studio ON %I TO wendel_app USING (studio_id = nullif(current_setting(''wendel.studio'', true), '''')::uuid) WITH CHECK (studio_id = nullif(current_setting(''wendel.studio'', true), '''')::uuid)', t);
  END LOOP;
END $$;
--> statement-breakpoint
-- Whoever holds a token sees its link, and through it learns which studio to ask for.
CREATE POLICY by_token ON link FOR SELECT TO wendel_app USING (token_hash = nullif(current_setting('wendel.link', true), ''));
