CREATE TABLE "lesson" (
	"id" uuid PRIMARY KEY NOT NULL,
	"studio_id" uuid NOT NULL,
	"singer_id" uuid NOT NULL,
	"name" text NOT NULL,
	"course" jsonb NOT NULL,
	"note" text DEFAULT '' NOT NULL,
	"started_at" timestamp with time zone DEFAULT now() NOT NULL,
	"ended_at" timestamp with time zone
);
--> statement-breakpoint
CREATE TABLE "pin" (
	"studio_id" uuid NOT NULL,
	"singer_id" uuid NOT NULL,
	"what" text NOT NULL,
	"midi" double precision NOT NULL,
	"pinned_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "pin_singer_id_what_pk" PRIMARY KEY("singer_id","what"),
	CONSTRAINT "pin_what" CHECK ("pin"."what" in ('usable-low','usable-high','change','second-change','speaking'))
);
--> statement-breakpoint
CREATE TABLE "protocol" (
	"id" uuid PRIMARY KEY NOT NULL,
	"studio_id" uuid NOT NULL,
	"name" text NOT NULL,
	"purpose" text DEFAULT '' NOT NULL,
	"asks_health" boolean DEFAULT true NOT NULL,
	"steps" jsonb NOT NULL
);
--> statement-breakpoint
CREATE TABLE "voice_map" (
	"studio_id" uuid NOT NULL,
	"singer_id" uuid PRIMARY KEY NOT NULL,
	"engine" text NOT NULL,
	"evidence" integer NOT NULL,
	"map" jsonb NOT NULL,
	"summary" jsonb NOT NULL
);
--> statement-breakpoint
ALTER TABLE "singer" ADD COLUMN "intake" jsonb;--> statement-breakpoint
ALTER TABLE "singer" ADD COLUMN "archived_at" timestamp with time zone;--> statement-breakpoint
ALTER TABLE "singer" ADD COLUMN "evidence" integer DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE "take" ADD COLUMN "lesson_id" uuid;--> statement-breakpoint
ALTER TABLE "take" ADD COLUMN "step" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "take" ADD COLUMN "asked" jsonb;--> statement-breakpoint
ALTER TABLE "take" ADD COLUMN "note" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "lesson" ADD CONSTRAINT "lesson_studio_id_studio_id_fk" FOREIGN KEY ("studio_id") REFERENCES "public"."studio"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "lesson" ADD CONSTRAINT "lesson_singer" FOREIGN KEY ("studio_id","singer_id") REFERENCES "public"."singer"("studio_id","id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "pin" ADD CONSTRAINT "pin_studio_id_studio_id_fk" FOREIGN KEY ("studio_id") REFERENCES "public"."studio"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "pin" ADD CONSTRAINT "pin_singer" FOREIGN KEY ("studio_id","singer_id") REFERENCES "public"."singer"("studio_id","id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "protocol" ADD CONSTRAINT "protocol_studio_id_studio_id_fk" FOREIGN KEY ("studio_id") REFERENCES "public"."studio"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "voice_map" ADD CONSTRAINT "voice_map_studio_id_studio_id_fk" FOREIGN KEY ("studio_id") REFERENCES "public"."studio"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "voice_map" ADD CONSTRAINT "voice_map_singer" FOREIGN KEY ("studio_id","singer_id") REFERENCES "public"."singer"("studio_id","id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "lesson_by_singer" ON "lesson" USING btree ("singer_id","started_at");--> statement-breakpoint
ALTER TABLE "take" ADD CONSTRAINT "take_lesson" FOREIGN KEY ("lesson_id") REFERENCES "public"."lesson"("id") ON DELETE set null ON UPDATE no action;--> statement-breakpoint
GRANT SELECT, INSERT, UPDATE, DELETE ON lesson, protocol, pin, voice_map TO wendel_app;
--> statement-breakpoint
DO $$
DECLARE
  t text;
BEGIN
  FOREACH t IN ARRAY ARRAY['lesson', 'protocol', 'pin', 'voice_map'] LOOP
    EXECUTE format('ALTER TABLE %I ENABLE ROW LEVEL SECURITY', t);
    EXECUTE format(
      'CREATE POLICY own_studio ON %I TO wendel_app USING (studio_id = nullif(current_setting(''wendel.studio'', true), '''')::uuid) WITH CHECK (studio_id = nullif(current_setting(''wendel.studio'', true), '''')::uuid)', t);
  END LOOP;
END $$;
