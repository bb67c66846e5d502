CREATE TABLE "caliper_correction" (
	"id" uuid PRIMARY KEY NOT NULL,
	"caliper_id" uuid NOT NULL,
	"from_day" date NOT NULL,
	"offset_mm" double precision,
	"gain" double precision,
	"set_by" uuid NOT NULL,
	"at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "caliper_correction_both" CHECK (("caliper_correction"."offset_mm" is null) = ("caliper_correction"."gain" is null)),
	CONSTRAINT "caliper_correction_size" CHECK ("caliper_correction"."offset_mm" between -10 and 10 and "caliper_correction"."gain" between 0.7 and 1.3)
);
--> statement-breakpoint
CREATE TABLE "study" (
	"id" uuid PRIMARY KEY NOT NULL,
	"studio_id" uuid NOT NULL,
	"name" text NOT NULL,
	"kind" text NOT NULL,
	"protocol_id" text NOT NULL,
	"sites" jsonb NOT NULL,
	"reference_pen_id" uuid NOT NULL,
	"group" boolean DEFAULT false NOT NULL,
	"made_by" uuid NOT NULL,
	"at" timestamp with time zone DEFAULT now() NOT NULL,
	"closed_at" timestamp with time zone,
	"closed_on" date,
	"left_out_at" timestamp with time zone,
	"left_out_reason" text,
	CONSTRAINT "study_name" CHECK (length("study"."name") between 1 and 80),
	CONSTRAINT "study_kind" CHECK ("study"."kind" in ('repeat', 'assessors', 'calipers')),
	CONSTRAINT "study_closed" CHECK (("study"."closed_at" is null) = ("study"."closed_on" is null)),
	CONSTRAINT "study_left_out" CHECK (("study"."left_out_at" is null) = ("study"."left_out_reason" is null)),
	CONSTRAINT "study_reason" CHECK (length("study"."left_out_reason") between 1 and 300)
);
--> statement-breakpoint
CREATE TABLE "study_pen" (
	"id" uuid PRIMARY KEY NOT NULL,
	"study_id" uuid NOT NULL,
	"place" integer NOT NULL,
	"staff_id" uuid,
	"caliper_id" uuid,
	"agreed_on" date,
	CONSTRAINT "study_pen_one" CHECK (("study_pen"."staff_id" is null) <> ("study_pen"."caliper_id" is null))
);
--> statement-breakpoint
CREATE TABLE "study_person" (
	"id" uuid PRIMARY KEY NOT NULL,
	"study_id" uuid NOT NULL,
	"place" integer NOT NULL,
	"client_id" uuid NOT NULL
);
--> statement-breakpoint
CREATE TABLE "drill_round" (
	"id" uuid PRIMARY KEY NOT NULL,
	"staff_id" uuid NOT NULL,
	"drill" text NOT NULL,
	"level" integer NOT NULL,
	"score" double precision NOT NULL,
	"detail" jsonb DEFAULT '{}'::jsonb NOT NULL,
	"at" timestamp with time zone NOT NULL,
	CONSTRAINT "drill_round_drill" CHECK ("drill_round"."drill" in ('find-site', 'read-dial', 'count', 'call-write', 'whole-client')),
	CONSTRAINT "drill_round_level" CHECK ("drill_round"."level" between 1 and 5),
	CONSTRAINT "drill_round_score" CHECK ("drill_round"."score" between 0 and 1000)
);
--> statement-breakpoint
CREATE TABLE "other_measurement" (
	"id" uuid PRIMARY KEY NOT NULL,
	"client_id" uuid NOT NULL,
	"method" text NOT NULL,
	"device" text NOT NULL,
	"day" date NOT NULL,
	"percent" double precision NOT NULL,
	"told" jsonb DEFAULT '{}'::jsonb NOT NULL,
	"conditions" jsonb DEFAULT '{}'::jsonb NOT NULL,
	"note" text DEFAULT '' NOT NULL,
	"entered_by" uuid NOT NULL,
	"at" timestamp with time zone DEFAULT now() NOT NULL,
	"struck_at" timestamp with time zone,
	CONSTRAINT "other_measurement_method" CHECK ("other_measurement"."method" in ('bia-hand-foot', 'bia-foot', 'hydrostatic', 'air', 'dxa', 'ultrasound', 'look')),
	CONSTRAINT "other_measurement_percent" CHECK ("other_measurement"."percent" between 1 and 75),
	CONSTRAINT "other_measurement_words" CHECK (length("other_measurement"."device") between 1 and 80 and length("other_measurement"."note") <= 500)
);
--> statement-breakpoint
CREATE TABLE "study_turn" (
	"checkin_id" uuid PRIMARY KEY NOT NULL,
	"study_id" uuid NOT NULL,
	"person_id" uuid NOT NULL,
	"pen_id" uuid NOT NULL,
	"trial" integer NOT NULL,
	CONSTRAINT "study_turn_trial" CHECK ("study_turn"."trial" in (1, 2))
);
--> statement-breakpoint
CREATE TABLE "training_plan" (
	"id" uuid PRIMARY KEY NOT NULL,
	"studio_id" uuid NOT NULL,
	"staff_id" uuid NOT NULL,
	"people" integer NOT NULL,
	"by_day" date NOT NULL,
	"from_day" date NOT NULL,
	"note" text DEFAULT '' NOT NULL,
	"set_by" uuid NOT NULL,
	"at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "training_plan_people" CHECK ("training_plan"."people" between 1 and 500),
	CONSTRAINT "training_plan_days" CHECK ("training_plan"."by_day" > "training_plan"."from_day"),
	CONSTRAINT "training_plan_note" CHECK (length("training_plan"."note") <= 500)
);
--> statement-breakpoint
DROP INDEX "checkin_one_open";--> statement-breakpoint
ALTER TABLE "caliper" ADD COLUMN "kind" text DEFAULT 'spring' NOT NULL;--> statement-breakpoint
ALTER TABLE "caliper" ADD COLUMN "jaw_pressure" double precision;--> statement-breakpoint
ALTER TABLE "caliper" ADD COLUMN "opening_mm" double precision;--> statement-breakpoint
ALTER TABLE "caliper_check" ADD COLUMN "steps" jsonb DEFAULT '[]'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "caliper_check" ADD COLUMN "pressure" double precision;--> statement-breakpoint
ALTER TABLE "checkin" ADD COLUMN "study_id" uuid;--> statement-breakpoint
ALTER TABLE "caliper_correction" ADD CONSTRAINT "caliper_correction_caliper_id_caliper_id_fk" FOREIGN KEY ("caliper_id") REFERENCES "public"."caliper"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "caliper_correction" ADD CONSTRAINT "caliper_correction_set_by_staff_id_fk" FOREIGN KEY ("set_by") REFERENCES "public"."staff"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "study" ADD CONSTRAINT "study_studio_id_studio_id_fk" FOREIGN KEY ("studio_id") REFERENCES "public"."studio"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "study" ADD CONSTRAINT "study_made_by_staff_id_fk" FOREIGN KEY ("made_by") REFERENCES "public"."staff"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "study_pen" ADD CONSTRAINT "study_pen_study_id_study_id_fk" FOREIGN KEY ("study_id") REFERENCES "public"."study"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "study_pen" ADD CONSTRAINT "study_pen_staff_id_staff_id_fk" FOREIGN KEY ("staff_id") REFERENCES "public"."staff"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "study_pen" ADD CONSTRAINT "study_pen_caliper_id_caliper_id_fk" FOREIGN KEY ("caliper_id") REFERENCES "public"."caliper"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "study_person" ADD CONSTRAINT "study_person_study_id_study_id_fk" FOREIGN KEY ("study_id") REFERENCES "public"."study"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "study_person" ADD CONSTRAINT "study_person_client_id_client_id_fk" FOREIGN KEY ("client_id") REFERENCES "public"."client"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "drill_round" ADD CONSTRAINT "drill_round_staff_id_staff_id_fk" FOREIGN KEY ("staff_id") REFERENCES "public"."staff"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "other_measurement" ADD CONSTRAINT "other_measurement_client_id_client_id_fk" FOREIGN KEY ("client_id") REFERENCES "public"."client"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "other_measurement" ADD CONSTRAINT "other_measurement_entered_by_staff_id_fk" FOREIGN KEY ("entered_by") REFERENCES "public"."staff"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "study_turn" ADD CONSTRAINT "study_turn_checkin_id_checkin_id_fk" FOREIGN KEY ("checkin_id") REFERENCES "public"."checkin"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "study_turn" ADD CONSTRAINT "study_turn_study_id_study_id_fk" FOREIGN KEY ("study_id") REFERENCES "public"."study"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "study_turn" ADD CONSTRAINT "study_turn_person_id_study_person_id_fk" FOREIGN KEY ("person_id") REFERENCES "public"."study_person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "study_turn" ADD CONSTRAINT "study_turn_pen_id_study_pen_id_fk" FOREIGN KEY ("pen_id") REFERENCES "public"."study_pen"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "training_plan" ADD CONSTRAINT "training_plan_studio_id_studio_id_fk" FOREIGN KEY ("studio_id") REFERENCES "public"."studio"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "training_plan" ADD CONSTRAINT "training_plan_staff_id_staff_id_fk" FOREIGN KEY ("staff_id") REFERENCES "public"."staff"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "training_plan" ADD CONSTRAINT "training_plan_set_by_staff_id_fk" FOREIGN KEY ("set_by") REFERENCES "public"."staff"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "caliper_correction_caliper" ON "caliper_correction" USING btree ("caliper_id","from_day");--> statement-breakpoint
CREATE INDEX "study_studio" ON "study" USING btree ("studio_id","at");--> statement-breakpoint
CREATE UNIQUE INDEX "study_pen_place" ON "study_pen" USING btree ("study_id","place");--> statement-breakpoint
CREATE UNIQUE INDEX "study_person_once" ON "study_person" USING btree ("study_id","client_id");--> statement-breakpoint
CREATE UNIQUE INDEX "study_person_place" ON "study_person" USING btree ("study_id","place");--> statement-breakpoint
CREATE INDEX "drill_round_staff" ON "drill_round" USING btree ("staff_id","drill","at");--> statement-breakpoint
CREATE INDEX "other_measurement_client" ON "other_measurement" USING btree ("client_id","day");--> statement-breakpoint
CREATE INDEX "study_turn_study" ON "study_turn" USING btree ("study_id","person_id");--> statement-breakpoint
CREATE INDEX "training_plan_staff" ON "training_plan" USING btree ("staff_id","at");--> statement-breakpoint
ALTER TABLE "checkin" ADD CONSTRAINT "checkin_study_id_study_id_fk" FOREIGN KEY ("study_id") REFERENCES "public"."study"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "checkin_study" ON "checkin" USING btree ("study_id");--> statement-breakpoint
CREATE UNIQUE INDEX "checkin_one_open" ON "checkin" USING btree ("client_id") WHERE "checkin"."finished_at" is null and "checkin"."study_id" is null;--> statement-breakpoint
ALTER TABLE "caliper" ADD CONSTRAINT "caliper_kind" CHECK ("caliper"."kind" in ('spring', 'digital', 'plastic-click', 'plastic', 'ruler'));--> statement-breakpoint
ALTER TABLE "caliper" ADD CONSTRAINT "caliper_pressure" CHECK ("caliper"."jaw_pressure" between 1 and 40);--> statement-breakpoint
ALTER TABLE "caliper" ADD CONSTRAINT "caliper_opening" CHECK ("caliper"."opening_mm" between 20 and 200);--> statement-breakpoint
ALTER TABLE "caliper_check" ADD CONSTRAINT "caliper_check_pressure" CHECK ("caliper_check"."pressure" between 1 and 40);