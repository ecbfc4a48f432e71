ALTER TABLE "singer" ADD COLUMN "school" text;--> statement-breakpoint
ALTER TABLE "studio" ADD COLUMN "school" text DEFAULT 'classical' NOT NULL;--> statement-breakpoint
-- The application changes its own studio's settings, and nobody else's.
CREATE POLICY change_own_studio ON studio FOR UPDATE TO wendel_app USING (id = nullif(current_setting('wendel.studio', true), '')::uuid) WITH CHECK (id = nullif(current_setting('wendel.studio', true), '')::uuid);
