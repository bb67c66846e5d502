ALTER TABLE "studio" ADD COLUMN "address" text;--> statement-breakpoint
ALTER TABLE "studio" ADD CONSTRAINT "studio_address" CHECK ("studio"."address" ~ '^https?://[^/\s]{1,200}$');