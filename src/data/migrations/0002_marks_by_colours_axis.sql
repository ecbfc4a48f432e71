ALTER TABLE "mark" ADD COLUMN "by" text DEFAULT 'coach' NOT NULL;--> statement-breakpoint
ALTER TABLE "singer" ADD COLUMN "axis" jsonb;--> statement-breakpoint
ALTER TABLE "take" ADD COLUMN "colour" text;--> statement-breakpoint
ALTER TABLE "mark" ADD CONSTRAINT "mark_by" CHECK ("mark"."by" in ('coach','singer'));--> statement-breakpoint
ALTER TABLE "take" ADD CONSTRAINT "take_colour" CHECK ("take"."colour" in ('chest','chest-blend','head-blend','head'));