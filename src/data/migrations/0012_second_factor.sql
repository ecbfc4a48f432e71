CREATE TABLE "two_factor" (
	"id" text PRIMARY KEY NOT NULL,
	"user_id" text NOT NULL,
	"secret" text NOT NULL,
	"backup_codes" text NOT NULL,
	"verified" boolean DEFAULT true NOT NULL,
	"failed_verification_count" integer DEFAULT 0 NOT NULL,
	"locked_until" timestamp with time zone
);
--> statement-breakpoint
ALTER TABLE "coach" ADD COLUMN "two_factor_enabled" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "two_factor" ADD CONSTRAINT "two_factor_user_id_coach_id_fk" FOREIGN KEY ("user_id") REFERENCES "public"."coach"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "two_factor_by_coach" ON "two_factor" USING btree ("user_id");
--> statement-breakpoint
REVOKE ALL ON two_factor FROM wendel_app;
--> statement-breakpoint
GRANT SELECT, INSERT, UPDATE, DELETE ON two_factor TO wendel_door;
--> statement-breakpoint
ALTER TABLE two_factor ENABLE ROW LEVEL SECURITY;
--> statement-breakpoint
CREATE POLICY door ON two_factor TO wendel_door USING (true) WITH CHECK (true);
