CREATE TABLE "analysis" (
	"studio_id" uuid NOT NULL,
	"take_id" uuid NOT NULL,
	"engine" text NOT NULL,
	"findings" jsonb,
	"trace" jsonb,
	"error" text,
	"analysed_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "analysis_take_id_engine_pk" PRIMARY KEY("take_id","engine")
);
--> statement-breakpoint
CREATE TABLE "assignment" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"studio_id" uuid NOT NULL,
	"singer_id" uuid NOT NULL,
	"note" text DEFAULT '' NOT NULL,
	"items" jsonb NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "mark" (
	"id" uuid PRIMARY KEY NOT NULL,
	"studio_id" uuid NOT NULL,
	"take_id" uuid NOT NULL,
	"time_s" double precision NOT NULL,
	"midi" double precision NOT NULL,
	"direction" text NOT NULL,
	"verdict" text NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "mark_direction" CHECK ("mark"."direction" in ('up','down')),
	CONSTRAINT "mark_verdict" CHECK ("mark"."verdict" in ('accept','reject','move','add'))
);
--> statement-breakpoint
CREATE TABLE "singer" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"studio_id" uuid NOT NULL,
	"name" text NOT NULL,
	"part" text DEFAULT '' NOT NULL,
	"voice_type" text NOT NULL,
	"note" text DEFAULT '' NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "singer_studio_id" UNIQUE("studio_id","id"),
	CONSTRAINT "singer_name_given" CHECK (length(trim("singer"."name")) between 1 and 120),
	CONSTRAINT "singer_voice_type" CHECK ("singer"."voice_type" in ('bass','baritone','tenor','contralto','mezzo','soprano'))
);
--> statement-breakpoint
CREATE TABLE "studio" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"name" text NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "take" (
	"id" uuid PRIMARY KEY NOT NULL,
	"studio_id" uuid NOT NULL,
	"singer_id" uuid NOT NULL,
	"task" text NOT NULL,
	"vowel" text DEFAULT '' NOT NULL,
	"source" text NOT NULL,
	"sha256" text NOT NULL,
	"bytes" integer NOT NULL,
	"duration_s" double precision NOT NULL,
	"sample_rate" integer NOT NULL,
	"recorded_at" timestamp with time zone NOT NULL,
	CONSTRAINT "take_studio_id" UNIQUE("studio_id","id"),
	CONSTRAINT "take_task" CHECK ("take"."task" in ('siren','scale','sustain','speech','free')),
	CONSTRAINT "take_source" CHECK ("take"."source" in ('microphone','file','simulated')),
	CONSTRAINT "take_sha256" CHECK ("take"."sha256" ~ '^[0-9a-f]{64}$')
);
--> statement-breakpoint
CREATE TABLE "take_audio" (
	"studio_id" uuid NOT NULL,
	"take_id" uuid NOT NULL,
	"part" integer NOT NULL,
	"bytes" "bytea" NOT NULL,
	CONSTRAINT "take_audio_take_id_part_pk" PRIMARY KEY("take_id","part")
);
--> statement-breakpoint
ALTER TABLE "analysis" ADD CONSTRAINT "analysis_studio_id_studio_id_fk" FOREIGN KEY ("studio_id") REFERENCES "public"."studio"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "analysis" ADD CONSTRAINT "analysis_take" FOREIGN KEY ("studio_id","take_id") REFERENCES "public"."take"("studio_id","id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "assignment" ADD CONSTRAINT "assignment_studio_id_studio_id_fk" FOREIGN KEY ("studio_id") REFERENCES "public"."studio"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "assignment" ADD CONSTRAINT "assignment_singer" FOREIGN KEY ("studio_id","singer_id") REFERENCES "public"."singer"("studio_id","id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "mark" ADD CONSTRAINT "mark_studio_id_studio_id_fk" FOREIGN KEY ("studio_id") REFERENCES "public"."studio"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "mark" ADD CONSTRAINT "mark_take" FOREIGN KEY ("studio_id","take_id") REFERENCES "public"."take"("studio_id","id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "singer" ADD CONSTRAINT "singer_studio_id_studio_id_fk" FOREIGN KEY ("studio_id") REFERENCES "public"."studio"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "take" ADD CONSTRAINT "take_studio_id_studio_id_fk" FOREIGN KEY ("studio_id") REFERENCES "public"."studio"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "take" ADD CONSTRAINT "take_singer" FOREIGN KEY ("studio_id","singer_id") REFERENCES "public"."singer"("studio_id","id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "take_audio" ADD CONSTRAINT "take_audio_studio_id_studio_id_fk" FOREIGN KEY ("studio_id") REFERENCES "public"."studio"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "take_audio" ADD CONSTRAINT "take_audio_take" FOREIGN KEY ("studio_id","take_id") REFERENCES "public"."take"("studio_id","id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "assignment_by_singer" ON "assignment" USING btree ("singer_id","created_at");--> statement-breakpoint
CREATE INDEX "mark_by_take" ON "mark" USING btree ("take_id");--> statement-breakpoint
CREATE INDEX "take_by_singer" ON "take" USING btree ("singer_id","recorded_at");