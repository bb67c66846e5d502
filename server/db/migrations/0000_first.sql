CREATE TABLE "checkin" (
	"id" uuid PRIMARY KEY NOT NULL,
	"client_id" uuid NOT NULL,
	"protocol_id" text NOT NULL,
	"side" text NOT NULL,
	"started_by" uuid NOT NULL,
	"started_at" timestamp with time zone NOT NULL,
	"finished_at" timestamp with time zone,
	"note" text DEFAULT '' NOT NULL,
	CONSTRAINT "checkin_side" CHECK ("checkin"."side" in ('right', 'left')),
	CONSTRAINT "checkin_order" CHECK ("checkin"."finished_at" >= "checkin"."started_at"),
	CONSTRAINT "checkin_note_length" CHECK (length("checkin"."note") <= 4000)
);
--> statement-breakpoint
CREATE TABLE "client" (
	"id" uuid PRIMARY KEY NOT NULL,
	"studio_id" uuid NOT NULL,
	"name" text NOT NULL,
	"sex" text NOT NULL,
	"birth_date" date NOT NULL,
	"height_cm" double precision,
	"usual_side" text DEFAULT 'right' NOT NULL,
	"notes" text DEFAULT '' NOT NULL,
	"consent_on" date,
	"archived_at" timestamp with time zone,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "client_name_length" CHECK (length("client"."name") between 1 and 120),
	CONSTRAINT "client_sex" CHECK ("client"."sex" in ('female', 'male')),
	CONSTRAINT "client_birth_date" CHECK ("client"."birth_date" >= '1900-01-01'),
	CONSTRAINT "client_height" CHECK ("client"."height_cm" between 90 and 250),
	CONSTRAINT "client_usual_side" CHECK ("client"."usual_side" in ('right', 'left')),
	CONSTRAINT "client_notes_length" CHECK (length("client"."notes") <= 4000)
);
--> statement-breakpoint
CREATE TABLE "reading" (
	"id" uuid PRIMARY KEY NOT NULL,
	"checkin_id" uuid NOT NULL,
	"site" text NOT NULL,
	"round" integer NOT NULL,
	"value" double precision NOT NULL,
	"unit" text NOT NULL,
	"taken_at" timestamp with time zone NOT NULL,
	"taken_by" uuid NOT NULL,
	"source" text NOT NULL,
	"received_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "reading_round" CHECK ("reading"."round" between 1 and 20),
	CONSTRAINT "reading_unit" CHECK ("reading"."unit" in ('mm', 'kg', 'lb', 'cm', 'in')),
	CONSTRAINT "reading_value" CHECK (case "reading"."unit" when 'mm' then "reading"."value" between 1.5 and 80 when 'kg' then "reading"."value" between 20 and 350 when 'lb' then "reading"."value" between 44 and 772 when 'cm' then "reading"."value" between 10 and 250 else "reading"."value" between 4 and 99 end)
);
--> statement-breakpoint
CREATE TABLE "staff" (
	"id" uuid PRIMARY KEY NOT NULL,
	"studio_id" uuid NOT NULL,
	"name" text NOT NULL,
	"email" text NOT NULL,
	"password_hash" text NOT NULL,
	"role" text NOT NULL,
	"mass_unit" text,
	"length_unit" text,
	"active" boolean DEFAULT true NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "staff_name_length" CHECK (length("staff"."name") between 1 and 120),
	CONSTRAINT "staff_email_lower" CHECK ("staff"."email" = lower("staff"."email") and length("staff"."email") <= 200),
	CONSTRAINT "staff_role" CHECK ("staff"."role" in ('lead', 'coach')),
	CONSTRAINT "staff_mass_unit" CHECK ("staff"."mass_unit" in ('kg', 'lb')),
	CONSTRAINT "staff_length_unit" CHECK ("staff"."length_unit" in ('cm', 'in'))
);
--> statement-breakpoint
CREATE TABLE "strike" (
	"reading_id" uuid PRIMARY KEY NOT NULL,
	"struck_at" timestamp with time zone NOT NULL,
	"struck_by" uuid NOT NULL
);
--> statement-breakpoint
CREATE TABLE "studio" (
	"id" uuid PRIMARY KEY NOT NULL,
	"name" text NOT NULL,
	"mass_unit" text DEFAULT 'kg' NOT NULL,
	"length_unit" text DEFAULT 'cm' NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "studio_name_length" CHECK (length("studio"."name") between 1 and 120),
	CONSTRAINT "studio_mass_unit" CHECK ("studio"."mass_unit" in ('kg', 'lb')),
	CONSTRAINT "studio_length_unit" CHECK ("studio"."length_unit" in ('cm', 'in'))
);
--> statement-breakpoint
ALTER TABLE "checkin" ADD CONSTRAINT "checkin_client_id_client_id_fk" FOREIGN KEY ("client_id") REFERENCES "public"."client"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "checkin" ADD CONSTRAINT "checkin_started_by_staff_id_fk" FOREIGN KEY ("started_by") REFERENCES "public"."staff"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "client" ADD CONSTRAINT "client_studio_id_studio_id_fk" FOREIGN KEY ("studio_id") REFERENCES "public"."studio"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "reading" ADD CONSTRAINT "reading_checkin_id_checkin_id_fk" FOREIGN KEY ("checkin_id") REFERENCES "public"."checkin"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "reading" ADD CONSTRAINT "reading_taken_by_staff_id_fk" FOREIGN KEY ("taken_by") REFERENCES "public"."staff"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "staff" ADD CONSTRAINT "staff_studio_id_studio_id_fk" FOREIGN KEY ("studio_id") REFERENCES "public"."studio"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "strike" ADD CONSTRAINT "strike_reading_id_reading_id_fk" FOREIGN KEY ("reading_id") REFERENCES "public"."reading"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "strike" ADD CONSTRAINT "strike_struck_by_staff_id_fk" FOREIGN KEY ("struck_by") REFERENCES "public"."staff"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "checkin_client" ON "checkin" USING btree ("client_id","started_at");--> statement-breakpoint
CREATE INDEX "checkin_recent" ON "checkin" USING btree ("started_at");--> statement-breakpoint
CREATE UNIQUE INDEX "checkin_one_open" ON "checkin" USING btree ("client_id") WHERE "checkin"."finished_at" is null;--> statement-breakpoint
CREATE INDEX "client_list" ON "client" USING btree ("studio_id","archived_at",lower("name"),"id");--> statement-breakpoint
CREATE INDEX "reading_checkin" ON "reading" USING btree ("checkin_id","taken_at");--> statement-breakpoint
CREATE UNIQUE INDEX "staff_email" ON "staff" USING btree ("email");--> statement-breakpoint
CREATE INDEX "staff_studio" ON "staff" USING btree ("studio_id","name");