CREATE TABLE "away" (
	"id" uuid PRIMARY KEY NOT NULL,
	"staff_id" uuid NOT NULL,
	"stand_in_id" uuid,
	"from_day" date NOT NULL,
	"to_day" date NOT NULL,
	"set_by" uuid NOT NULL,
	"at" timestamp with time zone DEFAULT now() NOT NULL,
	"ended_at" timestamp with time zone,
	CONSTRAINT "away_order" CHECK ("away"."to_day" >= "away"."from_day"),
	CONSTRAINT "away_other" CHECK ("away"."stand_in_id" <> "away"."staff_id")
);
--> statement-breakpoint
CREATE TABLE "booking" (
	"id" uuid PRIMARY KEY NOT NULL,
	"studio_id" uuid NOT NULL,
	"client_id" uuid NOT NULL,
	"assessor_id" uuid,
	"place" text DEFAULT '' NOT NULL,
	"protocol_id" text,
	"starts_at" timestamp with time zone NOT NULL,
	"minutes" integer NOT NULL,
	"state" text DEFAULT 'booked' NOT NULL,
	"moved_from" timestamp with time zone,
	"sequence" integer DEFAULT 0 NOT NULL,
	"booked_by" uuid NOT NULL,
	"at" timestamp with time zone DEFAULT now() NOT NULL,
	"changed_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "booking_state" CHECK ("booking"."state" in ('booked', 'no-show', 'cancelled')),
	CONSTRAINT "booking_minutes" CHECK ("booking"."minutes" between 5 and 240),
	CONSTRAINT "booking_place_length" CHECK (length("booking"."place") <= 60)
);
--> statement-breakpoint
CREATE TABLE "calendar_link" (
	"id" uuid PRIMARY KEY NOT NULL,
	"studio_id" uuid NOT NULL,
	"staff_id" uuid,
	"token_hash" text NOT NULL,
	"made_by" uuid NOT NULL,
	"at" timestamp with time zone DEFAULT now() NOT NULL,
	"revoked_at" timestamp with time zone
);
--> statement-breakpoint
CREATE TABLE "studio_set" (
	"id" uuid PRIMARY KEY NOT NULL,
	"set_id" uuid NOT NULL,
	"version" integer NOT NULL,
	"studio_id" uuid NOT NULL,
	"name" text NOT NULL,
	"sites" jsonb NOT NULL,
	"policy" text NOT NULL,
	"girth_policy" text NOT NULL,
	"made_by" uuid NOT NULL,
	"at" timestamp with time zone DEFAULT now() NOT NULL,
	"retired_at" timestamp with time zone,
	CONSTRAINT "studio_set_name" CHECK (length("studio_set"."name") between 1 and 60)
);
--> statement-breakpoint
CREATE TABLE "client_link" (
	"id" uuid PRIMARY KEY NOT NULL,
	"client_id" uuid NOT NULL,
	"token_hash" text NOT NULL,
	"scope" jsonb NOT NULL,
	"expires_at" timestamp with time zone NOT NULL,
	"made_by" uuid NOT NULL,
	"at" timestamp with time zone DEFAULT now() NOT NULL,
	"first_opened_at" timestamp with time zone,
	"last_opened_at" timestamp with time zone,
	"pin_hash" text,
	"wrong_pins" integer DEFAULT 0 NOT NULL,
	"revoked_at" timestamp with time zone
);
--> statement-breakpoint
CREATE TABLE "coach_line" (
	"id" uuid PRIMARY KEY NOT NULL,
	"client_id" uuid NOT NULL,
	"hand_in_id" uuid,
	"words" text NOT NULL,
	"at" timestamp with time zone DEFAULT now() NOT NULL,
	"written_by" uuid NOT NULL,
	CONSTRAINT "coach_line_words" CHECK (length("coach_line"."words") between 1 and 500)
);
--> statement-breakpoint
CREATE TABLE "hand_in" (
	"id" uuid PRIMARY KEY NOT NULL,
	"client_id" uuid NOT NULL,
	"link_id" uuid NOT NULL,
	"day" date NOT NULL,
	"received_at" timestamp with time zone DEFAULT now() NOT NULL,
	"conditions" jsonb DEFAULT '{}'::jsonb NOT NULL,
	"fit" text,
	"words" text DEFAULT '' NOT NULL,
	"seen_at" timestamp with time zone,
	"seen_by" uuid,
	CONSTRAINT "hand_in_words" CHECK (length("hand_in"."words") <= 500),
	CONSTRAINT "hand_in_day" CHECK ("hand_in"."day" >= '1990-01-01')
);
--> statement-breakpoint
CREATE TABLE "home_girth" (
	"id" uuid PRIMARY KEY NOT NULL,
	"hand_in_id" uuid NOT NULL,
	"site" text NOT NULL,
	"trial" integer NOT NULL,
	"value" double precision NOT NULL,
	"unit" text NOT NULL,
	CONSTRAINT "home_girth_unit" CHECK ("home_girth"."unit" in ('cm', 'in')),
	CONSTRAINT "home_girth_trials" CHECK ("home_girth"."trial" between 1 and 3),
	CONSTRAINT "home_girth_site" CHECK ("home_girth"."site" ~ '^[a-z0-9-]{1,40}$'),
	CONSTRAINT "home_girth_value" CHECK (case "home_girth"."unit" when 'cm' then "home_girth"."value" * 1::float8 between 10 and 250 when 'in' then "home_girth"."value" * 2.54::float8 between 10 and 250 else false end)
);
--> statement-breakpoint
CREATE TABLE "home_photo" (
	"id" uuid PRIMARY KEY NOT NULL,
	"hand_in_id" uuid NOT NULL,
	"pose" text NOT NULL,
	"width" integer NOT NULL,
	"height" integer NOT NULL,
	"byte_length" integer NOT NULL,
	"digest" text NOT NULL,
	"taken_at" timestamp with time zone NOT NULL,
	"removed_at" timestamp with time zone,
	CONSTRAINT "home_photo_pose" CHECK ("home_photo"."pose" in ('front', 'side', 'back'))
);
--> statement-breakpoint
CREATE TABLE "link_session" (
	"id" uuid PRIMARY KEY NOT NULL,
	"link_id" uuid NOT NULL,
	"device" text NOT NULL,
	"started_at" timestamp with time zone NOT NULL,
	"ended_at" timestamp with time zone,
	CONSTRAINT "link_session_device" CHECK (length("link_session"."device") <= 80)
);
--> statement-breakpoint
CREATE TABLE "mail" (
	"id" uuid PRIMARY KEY NOT NULL,
	"studio_id" uuid NOT NULL,
	"client_id" uuid,
	"to_address" text NOT NULL,
	"subject" text NOT NULL,
	"words" text NOT NULL,
	"about" text NOT NULL,
	"stop_token_hash" text,
	"at" timestamp with time zone DEFAULT now() NOT NULL,
	"sent_at" timestamp with time zone,
	"tries" integer DEFAULT 0 NOT NULL
);
--> statement-breakpoint
CREATE TABLE "reminder_choice" (
	"id" uuid PRIMARY KEY NOT NULL,
	"client_id" uuid NOT NULL,
	"email" text,
	"visits" boolean NOT NULL,
	"hand_ins" boolean NOT NULL,
	"hand_in_weekday" integer DEFAULT 7 NOT NULL,
	"at" timestamp with time zone DEFAULT now() NOT NULL,
	"set_by" uuid,
	CONSTRAINT "reminder_choice_weekday" CHECK ("reminder_choice"."hand_in_weekday" between 1 and 7),
	CONSTRAINT "reminder_choice_email" CHECK (length("reminder_choice"."email") <= 200)
);
--> statement-breakpoint
CREATE TABLE "challenge" (
	"id" uuid PRIMARY KEY NOT NULL,
	"studio_id" uuid NOT NULL,
	"name" text NOT NULL,
	"starts_on" date NOT NULL,
	"ends_on" date NOT NULL,
	"figure" text NOT NULL,
	"categories" text NOT NULL,
	"teams" jsonb DEFAULT '[]'::jsonb NOT NULL,
	"prize_rule" text NOT NULL,
	"board_token_hash" text,
	"made_by" uuid NOT NULL,
	"at" timestamp with time zone DEFAULT now() NOT NULL,
	"closed_at" timestamp with time zone,
	"draw_seed" text,
	CONSTRAINT "challenge_name" CHECK (length("challenge"."name") between 1 and 80),
	CONSTRAINT "challenge_days" CHECK ("challenge"."ends_on" > "challenge"."starts_on"),
	CONSTRAINT "challenge_figure" CHECK ("challenge"."figure" in ('sum', 'fat'))
);
--> statement-breakpoint
CREATE TABLE "challenge_entry" (
	"id" uuid PRIMARY KEY NOT NULL,
	"challenge_id" uuid NOT NULL,
	"client_id" uuid NOT NULL,
	"shown_as" text NOT NULL,
	"alias" text DEFAULT '' NOT NULL,
	"team" text,
	"consent_on" date NOT NULL,
	"entered_by" uuid NOT NULL,
	"at" timestamp with time zone DEFAULT now() NOT NULL,
	"left_at" timestamp with time zone,
	CONSTRAINT "challenge_entry_alias" CHECK (length("challenge_entry"."alias") <= 40 and ("challenge_entry"."shown_as" <> 'alias' or "challenge_entry"."alias" <> ''))
);
--> statement-breakpoint
ALTER TABLE "client" ADD COLUMN "coach_id" uuid;--> statement-breakpoint
ALTER TABLE "studio" ADD COLUMN "coaches_see" text DEFAULT 'all' NOT NULL;--> statement-breakpoint
ALTER TABLE "studio" ADD COLUMN "quiet_from" integer DEFAULT 20 NOT NULL;--> statement-breakpoint
ALTER TABLE "studio" ADD COLUMN "quiet_to" integer DEFAULT 8 NOT NULL;--> statement-breakpoint
ALTER TABLE "weigh_in" ADD COLUMN "further" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "away" ADD CONSTRAINT "away_staff_id_staff_id_fk" FOREIGN KEY ("staff_id") REFERENCES "public"."staff"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "away" ADD CONSTRAINT "away_stand_in_id_staff_id_fk" FOREIGN KEY ("stand_in_id") REFERENCES "public"."staff"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "away" ADD CONSTRAINT "away_set_by_staff_id_fk" FOREIGN KEY ("set_by") REFERENCES "public"."staff"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "booking" ADD CONSTRAINT "booking_studio_id_studio_id_fk" FOREIGN KEY ("studio_id") REFERENCES "public"."studio"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "booking" ADD CONSTRAINT "booking_client_id_client_id_fk" FOREIGN KEY ("client_id") REFERENCES "public"."client"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "booking" ADD CONSTRAINT "booking_assessor_id_staff_id_fk" FOREIGN KEY ("assessor_id") REFERENCES "public"."staff"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "booking" ADD CONSTRAINT "booking_booked_by_staff_id_fk" FOREIGN KEY ("booked_by") REFERENCES "public"."staff"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "calendar_link" ADD CONSTRAINT "calendar_link_studio_id_studio_id_fk" FOREIGN KEY ("studio_id") REFERENCES "public"."studio"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "calendar_link" ADD CONSTRAINT "calendar_link_staff_id_staff_id_fk" FOREIGN KEY ("staff_id") REFERENCES "public"."staff"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "calendar_link" ADD CONSTRAINT "calendar_link_made_by_staff_id_fk" FOREIGN KEY ("made_by") REFERENCES "public"."staff"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "studio_set" ADD CONSTRAINT "studio_set_studio_id_studio_id_fk" FOREIGN KEY ("studio_id") REFERENCES "public"."studio"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "studio_set" ADD CONSTRAINT "studio_set_made_by_staff_id_fk" FOREIGN KEY ("made_by") REFERENCES "public"."staff"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "client_link" ADD CONSTRAINT "client_link_client_id_client_id_fk" FOREIGN KEY ("client_id") REFERENCES "public"."client"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "client_link" ADD CONSTRAINT "client_link_made_by_staff_id_fk" FOREIGN KEY ("made_by") REFERENCES "public"."staff"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "coach_line" ADD CONSTRAINT "coach_line_client_id_client_id_fk" FOREIGN KEY ("client_id") REFERENCES "public"."client"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "coach_line" ADD CONSTRAINT "coach_line_hand_in_id_hand_in_id_fk" FOREIGN KEY ("hand_in_id") REFERENCES "public"."hand_in"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "coach_line" ADD CONSTRAINT "coach_line_written_by_staff_id_fk" FOREIGN KEY ("written_by") REFERENCES "public"."staff"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "hand_in" ADD CONSTRAINT "hand_in_client_id_client_id_fk" FOREIGN KEY ("client_id") REFERENCES "public"."client"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "hand_in" ADD CONSTRAINT "hand_in_link_id_client_link_id_fk" FOREIGN KEY ("link_id") REFERENCES "public"."client_link"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "hand_in" ADD CONSTRAINT "hand_in_seen_by_staff_id_fk" FOREIGN KEY ("seen_by") REFERENCES "public"."staff"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "home_girth" ADD CONSTRAINT "home_girth_hand_in_id_hand_in_id_fk" FOREIGN KEY ("hand_in_id") REFERENCES "public"."hand_in"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "home_photo" ADD CONSTRAINT "home_photo_hand_in_id_hand_in_id_fk" FOREIGN KEY ("hand_in_id") REFERENCES "public"."hand_in"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "link_session" ADD CONSTRAINT "link_session_link_id_client_link_id_fk" FOREIGN KEY ("link_id") REFERENCES "public"."client_link"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "mail" ADD CONSTRAINT "mail_studio_id_studio_id_fk" FOREIGN KEY ("studio_id") REFERENCES "public"."studio"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "mail" ADD CONSTRAINT "mail_client_id_client_id_fk" FOREIGN KEY ("client_id") REFERENCES "public"."client"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "reminder_choice" ADD CONSTRAINT "reminder_choice_client_id_client_id_fk" FOREIGN KEY ("client_id") REFERENCES "public"."client"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "reminder_choice" ADD CONSTRAINT "reminder_choice_set_by_staff_id_fk" FOREIGN KEY ("set_by") REFERENCES "public"."staff"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "challenge" ADD CONSTRAINT "challenge_studio_id_studio_id_fk" FOREIGN KEY ("studio_id") REFERENCES "public"."studio"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "challenge" ADD CONSTRAINT "challenge_made_by_staff_id_fk" FOREIGN KEY ("made_by") REFERENCES "public"."staff"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "challenge_entry" ADD CONSTRAINT "challenge_entry_challenge_id_challenge_id_fk" FOREIGN KEY ("challenge_id") REFERENCES "public"."challenge"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "challenge_entry" ADD CONSTRAINT "challenge_entry_client_id_client_id_fk" FOREIGN KEY ("client_id") REFERENCES "public"."client"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "challenge_entry" ADD CONSTRAINT "challenge_entry_entered_by_staff_id_fk" FOREIGN KEY ("entered_by") REFERENCES "public"."staff"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "away_staff" ON "away" USING btree ("staff_id","to_day");--> statement-breakpoint
CREATE INDEX "booking_when" ON "booking" USING btree ("studio_id","starts_at");--> statement-breakpoint
CREATE INDEX "booking_client" ON "booking" USING btree ("client_id","starts_at");--> statement-breakpoint
CREATE UNIQUE INDEX "calendar_link_token" ON "calendar_link" USING btree ("token_hash");--> statement-breakpoint
CREATE INDEX "calendar_link_studio" ON "calendar_link" USING btree ("studio_id");--> statement-breakpoint
CREATE UNIQUE INDEX "studio_set_version" ON "studio_set" USING btree ("set_id","version");--> statement-breakpoint
CREATE INDEX "studio_set_studio" ON "studio_set" USING btree ("studio_id");--> statement-breakpoint
CREATE UNIQUE INDEX "client_link_token" ON "client_link" USING btree ("token_hash");--> statement-breakpoint
CREATE INDEX "client_link_client" ON "client_link" USING btree ("client_id","at");--> statement-breakpoint
CREATE INDEX "coach_line_client" ON "coach_line" USING btree ("client_id","at");--> statement-breakpoint
CREATE INDEX "hand_in_client" ON "hand_in" USING btree ("client_id","day");--> statement-breakpoint
CREATE INDEX "hand_in_unseen" ON "hand_in" USING btree ("client_id") WHERE "hand_in"."seen_at" is null;--> statement-breakpoint
CREATE UNIQUE INDEX "home_girth_trial" ON "home_girth" USING btree ("hand_in_id","site","trial");--> statement-breakpoint
CREATE INDEX "home_photo_hand_in" ON "home_photo" USING btree ("hand_in_id");--> statement-breakpoint
CREATE INDEX "link_session_link" ON "link_session" USING btree ("link_id");--> statement-breakpoint
CREATE UNIQUE INDEX "mail_about" ON "mail" USING btree ("about");--> statement-breakpoint
CREATE UNIQUE INDEX "mail_stop" ON "mail" USING btree ("stop_token_hash");--> statement-breakpoint
CREATE INDEX "mail_studio" ON "mail" USING btree ("studio_id","at");--> statement-breakpoint
CREATE INDEX "mail_waiting" ON "mail" USING btree ("at") WHERE "mail"."sent_at" is null;--> statement-breakpoint
CREATE INDEX "reminder_choice_latest" ON "reminder_choice" USING btree ("client_id","at");--> statement-breakpoint
CREATE INDEX "challenge_studio" ON "challenge" USING btree ("studio_id","ends_on");--> statement-breakpoint
CREATE UNIQUE INDEX "challenge_board" ON "challenge" USING btree ("board_token_hash");--> statement-breakpoint
CREATE UNIQUE INDEX "challenge_entry_once" ON "challenge_entry" USING btree ("challenge_id","client_id") WHERE "challenge_entry"."left_at" is null;--> statement-breakpoint
ALTER TABLE "client" ADD CONSTRAINT "client_coach_id_staff_id_fk" FOREIGN KEY ("coach_id") REFERENCES "public"."staff"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "studio" ADD CONSTRAINT "studio_coaches_see" CHECK ("studio"."coaches_see" in ('all', 'own'));--> statement-breakpoint
ALTER TABLE "studio" ADD CONSTRAINT "studio_quiet" CHECK ("studio"."quiet_from" between 0 and 23 and "studio"."quiet_to" between 0 and 23);