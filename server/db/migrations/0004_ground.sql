CREATE TABLE "audit" (
	"id" uuid PRIMARY KEY NOT NULL,
	"studio_id" uuid NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"actor" text NOT NULL,
	"staff_id" uuid,
	"kind" text NOT NULL,
	"client_id" uuid,
	"checkin_id" uuid,
	"subject_id" uuid,
	CONSTRAINT "audit_actor" CHECK ("audit"."actor" in ('staff', 'link', 'system')),
	CONSTRAINT "audit_kind" CHECK ("audit"."kind" ~ '^[a-z.-]{1,40}$')
);
--> statement-breakpoint
CREATE TABLE "known_device" (
	"id" uuid PRIMARY KEY NOT NULL,
	"staff_id" uuid NOT NULL,
	"token_hash" text NOT NULL,
	"at" timestamp with time zone NOT NULL
);
--> statement-breakpoint
CREATE TABLE "password_link" (
	"id" uuid PRIMARY KEY NOT NULL,
	"staff_id" uuid NOT NULL,
	"token_hash" text NOT NULL,
	"made_by" uuid NOT NULL,
	"expires_at" timestamp with time zone NOT NULL,
	"used_at" timestamp with time zone
);
--> statement-breakpoint
CREATE TABLE "session" (
	"id" uuid PRIMARY KEY NOT NULL,
	"staff_id" uuid NOT NULL,
	"device" text NOT NULL,
	"started_at" timestamp with time zone NOT NULL,
	"seen_at" timestamp with time zone NOT NULL,
	"ended_at" timestamp with time zone,
	CONSTRAINT "session_device_length" CHECK (length("session"."device") <= 80)
);
--> statement-breakpoint
ALTER TABLE "staff" DROP CONSTRAINT "staff_role";--> statement-breakpoint
ALTER TABLE "reading" DROP CONSTRAINT "reading_value";--> statement-breakpoint
ALTER TABLE "weigh_in" DROP CONSTRAINT "weigh_in_value";--> statement-breakpoint
ALTER TABLE "client" ADD COLUMN "version" integer DEFAULT 1 NOT NULL;--> statement-breakpoint
ALTER TABLE "studio" ADD COLUMN "time_zone" text DEFAULT 'UTC' NOT NULL;--> statement-breakpoint
ALTER TABLE "checkin" ADD COLUMN "day" date;--> statement-breakpoint
UPDATE "checkin" SET "day" = ("started_at" at time zone 'UTC')::date;--> statement-breakpoint
ALTER TABLE "checkin" ALTER COLUMN "day" SET NOT NULL;--> statement-breakpoint
UPDATE "reading" SET "method" = case "method" when 'as it is' then 'as-it-is' when 'underside supported' then 'underside-supported' when 'leg straight' then 'leg-straight' end WHERE "method" is not null;--> statement-breakpoint
ALTER TABLE "photo" ADD COLUMN "digest" text;--> statement-breakpoint
ALTER TABLE "audit" ADD CONSTRAINT "audit_studio_id_studio_id_fk" FOREIGN KEY ("studio_id") REFERENCES "public"."studio"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "known_device" ADD CONSTRAINT "known_device_staff_id_staff_id_fk" FOREIGN KEY ("staff_id") REFERENCES "public"."staff"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "password_link" ADD CONSTRAINT "password_link_staff_id_staff_id_fk" FOREIGN KEY ("staff_id") REFERENCES "public"."staff"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "password_link" ADD CONSTRAINT "password_link_made_by_staff_id_fk" FOREIGN KEY ("made_by") REFERENCES "public"."staff"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "session" ADD CONSTRAINT "session_staff_id_staff_id_fk" FOREIGN KEY ("staff_id") REFERENCES "public"."staff"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "audit_newest" ON "audit" USING btree ("studio_id","id");--> statement-breakpoint
CREATE INDEX "audit_client" ON "audit" USING btree ("client_id","at");--> statement-breakpoint
CREATE UNIQUE INDEX "known_device_token" ON "known_device" USING btree ("staff_id","token_hash");--> statement-breakpoint
CREATE UNIQUE INDEX "password_link_token" ON "password_link" USING btree ("token_hash");--> statement-breakpoint
CREATE INDEX "password_link_staff" ON "password_link" USING btree ("staff_id");--> statement-breakpoint
CREATE INDEX "session_staff" ON "session" USING btree ("staff_id","started_at");--> statement-breakpoint
ALTER TABLE "staff" ADD CONSTRAINT "staff_role" CHECK ("staff"."role" in ('lead', 'coach', 'recorder'));--> statement-breakpoint
ALTER TABLE "reading" ADD CONSTRAINT "reading_site" CHECK ("reading"."site" ~ '^[a-z0-9-]{1,40}$');--> statement-breakpoint
ALTER TABLE "reading" ADD CONSTRAINT "reading_method" CHECK ("reading"."method" in ('as-it-is', 'underside-supported', 'leg-straight'));--> statement-breakpoint
ALTER TABLE "reading" ADD CONSTRAINT "reading_source" CHECK ("reading"."source" in ('pad', 'keyboard', 'caliper', 'scale', 'recorder', 'paper', 'import', 'simulated'));--> statement-breakpoint
ALTER TABLE "reading" ADD CONSTRAINT "reading_value" CHECK (case "reading"."unit" when 'mm' then "reading"."value" * 1::float8 between 1.5 and 80 when 'cm' then "reading"."value" * 1::float8 between 10 and 250 when 'in' then "reading"."value" * 2.54::float8 between 10 and 250 when 'kg' then "reading"."value" * 1::float8 between 20 and 350 when 'lb' then "reading"."value" * 0.45359237::float8 between 20 and 350 else false end);--> statement-breakpoint
ALTER TABLE "weigh_in" ADD CONSTRAINT "weigh_in_value" CHECK (case "weigh_in"."unit" when 'kg' then "weigh_in"."value" * 1::float8 between 20 and 350 when 'lb' then "weigh_in"."value" * 0.45359237::float8 between 20 and 350 else false end);