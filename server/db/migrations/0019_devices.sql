CREATE TABLE "device_key" (
	"studio_id" uuid PRIMARY KEY NOT NULL,
	"secret" text NOT NULL,
	"made_at" timestamp with time zone NOT NULL
);
--> statement-breakpoint
CREATE TABLE "passkey" (
	"id" uuid PRIMARY KEY NOT NULL,
	"staff_id" uuid NOT NULL,
	"credential_id" text NOT NULL,
	"public_key" text NOT NULL,
	"counter" integer DEFAULT 0 NOT NULL,
	"transports" jsonb DEFAULT '[]'::jsonb NOT NULL,
	"name" text NOT NULL,
	"added_at" timestamp with time zone NOT NULL,
	"used_at" timestamp with time zone,
	CONSTRAINT "passkey_name_length" CHECK (length("passkey"."name") between 1 and 60)
);
--> statement-breakpoint
CREATE TABLE "passkey_challenge" (
	"hash" text PRIMARY KEY NOT NULL,
	"staff_id" uuid,
	"purpose" text NOT NULL,
	"expires_at" timestamp with time zone NOT NULL
);
--> statement-breakpoint
CREATE TABLE "pin" (
	"staff_id" uuid PRIMARY KEY NOT NULL,
	"secret" text NOT NULL,
	"tries" integer DEFAULT 0 NOT NULL,
	"set_at" timestamp with time zone NOT NULL,
	CONSTRAINT "pin_tries" CHECK ("pin"."tries" between 0 and 5)
);
--> statement-breakpoint
ALTER TABLE "studio" ADD COLUMN "lock_minutes" integer DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE "studio" ADD COLUMN "second_required" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "session" ADD COLUMN "locked_at" timestamp with time zone;--> statement-breakpoint
ALTER TABLE "session" ADD COLUMN "strange" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "device_key" ADD CONSTRAINT "device_key_studio_id_studio_id_fk" FOREIGN KEY ("studio_id") REFERENCES "public"."studio"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "passkey" ADD CONSTRAINT "passkey_staff_id_staff_id_fk" FOREIGN KEY ("staff_id") REFERENCES "public"."staff"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "passkey_challenge" ADD CONSTRAINT "passkey_challenge_staff_id_staff_id_fk" FOREIGN KEY ("staff_id") REFERENCES "public"."staff"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "pin" ADD CONSTRAINT "pin_staff_id_staff_id_fk" FOREIGN KEY ("staff_id") REFERENCES "public"."staff"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE UNIQUE INDEX "passkey_credential" ON "passkey" USING btree ("credential_id");--> statement-breakpoint
CREATE INDEX "passkey_staff" ON "passkey" USING btree ("staff_id");--> statement-breakpoint
CREATE INDEX "passkey_challenge_expires" ON "passkey_challenge" USING btree ("expires_at");--> statement-breakpoint
ALTER TABLE "studio" ADD CONSTRAINT "studio_lock" CHECK ("studio"."lock_minutes" between 0 and 60);