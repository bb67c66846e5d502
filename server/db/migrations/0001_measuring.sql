CREATE TABLE "caliper" (
	"id" uuid PRIMARY KEY NOT NULL,
	"studio_id" uuid NOT NULL,
	"name" text NOT NULL,
	"retired" boolean DEFAULT false NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "caliper_name_length" CHECK (length("caliper"."name") between 1 and 80)
);
--> statement-breakpoint
CREATE TABLE "caliper_check" (
	"id" uuid PRIMARY KEY NOT NULL,
	"caliper_id" uuid NOT NULL,
	"checked_on" date NOT NULL,
	"deviation_mm" double precision NOT NULL,
	"checked_by" uuid NOT NULL,
	CONSTRAINT "caliper_check_deviation" CHECK ("caliper_check"."deviation_mm" between -20 and 20)
);
--> statement-breakpoint
CREATE TABLE "caution_flag" (
	"client_id" uuid NOT NULL,
	"flag" text NOT NULL,
	"since" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "caution_flag_client_id_flag_pk" PRIMARY KEY("client_id","flag")
);
--> statement-breakpoint
CREATE TABLE "landmark_note" (
	"client_id" uuid NOT NULL,
	"site" text NOT NULL,
	"note" text NOT NULL,
	"changed_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "landmark_note_client_id_site_pk" PRIMARY KEY("client_id","site"),
	CONSTRAINT "landmark_note_length" CHECK (length("landmark_note"."note") between 1 and 300)
);
--> statement-breakpoint
CREATE TABLE "remark" (
	"id" uuid PRIMARY KEY NOT NULL,
	"reading_id" uuid NOT NULL,
	"words" text NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"made_by" uuid NOT NULL,
	CONSTRAINT "remark_length" CHECK (length("remark"."words") between 1 and 500)
);
--> statement-breakpoint
CREATE TABLE "skip" (
	"id" uuid PRIMARY KEY NOT NULL,
	"checkin_id" uuid NOT NULL,
	"site" text NOT NULL,
	"reason" text NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"skipped_by" uuid NOT NULL,
	CONSTRAINT "skip_reason_length" CHECK (length("skip"."reason") between 1 and 300)
);
--> statement-breakpoint
ALTER TABLE "checkin" ADD COLUMN "assessor_id" uuid;--> statement-breakpoint
ALTER TABLE "checkin" ADD COLUMN "recorder_id" uuid;--> statement-breakpoint
ALTER TABLE "checkin" ADD COLUMN "caliper_id" uuid;--> statement-breakpoint
ALTER TABLE "checkin" ADD COLUMN "conditions" jsonb DEFAULT '{}'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "checkin" ADD COLUMN "with_height" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "client" ADD COLUMN "guardian_consent" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "reading" ADD COLUMN "method" text;--> statement-breakpoint
ALTER TABLE "staff" ADD COLUMN "habits" jsonb DEFAULT '{}'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "caliper" ADD CONSTRAINT "caliper_studio_id_studio_id_fk" FOREIGN KEY ("studio_id") REFERENCES "public"."studio"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "caliper_check" ADD CONSTRAINT "caliper_check_caliper_id_caliper_id_fk" FOREIGN KEY ("caliper_id") REFERENCES "public"."caliper"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "caliper_check" ADD CONSTRAINT "caliper_check_checked_by_staff_id_fk" FOREIGN KEY ("checked_by") REFERENCES "public"."staff"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "caution_flag" ADD CONSTRAINT "caution_flag_client_id_client_id_fk" FOREIGN KEY ("client_id") REFERENCES "public"."client"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "landmark_note" ADD CONSTRAINT "landmark_note_client_id_client_id_fk" FOREIGN KEY ("client_id") REFERENCES "public"."client"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "remark" ADD CONSTRAINT "remark_reading_id_reading_id_fk" FOREIGN KEY ("reading_id") REFERENCES "public"."reading"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "remark" ADD CONSTRAINT "remark_made_by_staff_id_fk" FOREIGN KEY ("made_by") REFERENCES "public"."staff"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "skip" ADD CONSTRAINT "skip_checkin_id_checkin_id_fk" FOREIGN KEY ("checkin_id") REFERENCES "public"."checkin"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "skip" ADD CONSTRAINT "skip_skipped_by_staff_id_fk" FOREIGN KEY ("skipped_by") REFERENCES "public"."staff"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "caliper_studio" ON "caliper" USING btree ("studio_id","name");--> statement-breakpoint
CREATE INDEX "caliper_check_latest" ON "caliper_check" USING btree ("caliper_id","checked_on");--> statement-breakpoint
CREATE INDEX "remark_reading" ON "remark" USING btree ("reading_id");--> statement-breakpoint
CREATE INDEX "skip_checkin" ON "skip" USING btree ("checkin_id");--> statement-breakpoint
ALTER TABLE "checkin" ADD CONSTRAINT "checkin_assessor_id_staff_id_fk" FOREIGN KEY ("assessor_id") REFERENCES "public"."staff"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "checkin" ADD CONSTRAINT "checkin_recorder_id_staff_id_fk" FOREIGN KEY ("recorder_id") REFERENCES "public"."staff"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "checkin" ADD CONSTRAINT "checkin_caliper_id_caliper_id_fk" FOREIGN KEY ("caliper_id") REFERENCES "public"."caliper"("id") ON DELETE no action ON UPDATE no action;