ALTER TABLE "studio" ADD COLUMN "session_idle_hours" integer DEFAULT 72 NOT NULL;--> statement-breakpoint
ALTER TABLE "studio" ADD COLUMN "session_days" integer DEFAULT 14 NOT NULL;--> statement-breakpoint
ALTER TABLE "session" ADD COLUMN "confirmed_at" timestamp with time zone DEFAULT '2000-01-01T00:00:00Z' NOT NULL;--> statement-breakpoint
ALTER TABLE "studio" ADD CONSTRAINT "studio_session" CHECK ("studio"."session_idle_hours" between 1 and 720 and "studio"."session_days" between 1 and 30);