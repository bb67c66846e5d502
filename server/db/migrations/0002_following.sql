CREATE TABLE "client_choice" (
	"id" uuid PRIMARY KEY NOT NULL,
	"client_id" uuid NOT NULL,
	"choices" jsonb NOT NULL,
	"at" timestamp with time zone DEFAULT now() NOT NULL,
	"chosen_by" uuid NOT NULL
);
--> statement-breakpoint
CREATE TABLE "photo" (
	"id" uuid PRIMARY KEY NOT NULL,
	"checkin_id" uuid NOT NULL,
	"pose" text NOT NULL,
	"width" integer NOT NULL,
	"height" integer NOT NULL,
	"byte_length" integer NOT NULL,
	"conditions" jsonb DEFAULT '{}'::jsonb NOT NULL,
	"alignment" jsonb DEFAULT '{"x":0,"y":0,"scale":1}'::jsonb NOT NULL,
	"taken_at" timestamp with time zone NOT NULL,
	"taken_by" uuid NOT NULL,
	"removed_at" timestamp with time zone,
	CONSTRAINT "photo_pose" CHECK ("photo"."pose" in ('front', 'side', 'back')),
	CONSTRAINT "photo_size" CHECK ("photo"."width" between 1 and 4000 and "photo"."height" between 1 and 4000)
);
--> statement-breakpoint
CREATE TABLE "weigh_in" (
	"id" uuid PRIMARY KEY NOT NULL,
	"client_id" uuid NOT NULL,
	"day" date NOT NULL,
	"value" double precision NOT NULL,
	"unit" text NOT NULL,
	"dry" boolean DEFAULT true NOT NULL,
	"source" text NOT NULL,
	"entered_by" uuid,
	"entered_at" timestamp with time zone DEFAULT now() NOT NULL,
	"struck_at" timestamp with time zone,
	CONSTRAINT "weigh_in_unit" CHECK ("weigh_in"."unit" in ('kg', 'lb')),
	CONSTRAINT "weigh_in_value" CHECK (case "weigh_in"."unit" when 'kg' then "weigh_in"."value" between 20 and 350 else "weigh_in"."value" between 44 and 772 end),
	CONSTRAINT "weigh_in_day" CHECK ("weigh_in"."day" >= '1990-01-01')
);
--> statement-breakpoint
ALTER TABLE "caliper" ADD COLUMN "resolution_mm" double precision DEFAULT 0.5 NOT NULL;--> statement-breakpoint
ALTER TABLE "checkin" ADD COLUMN "policies" jsonb DEFAULT '{"folds":null,"girths":null}'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "checkin" ADD COLUMN "kept_words" text;--> statement-breakpoint
ALTER TABLE "client" ADD COLUMN "athlete" boolean;--> statement-breakpoint
ALTER TABLE "client" ADD COLUMN "ancestry" text;--> statement-breakpoint
ALTER TABLE "client" ADD COLUMN "photo_consent_on" date;--> statement-breakpoint
ALTER TABLE "client" ADD COLUMN "touched_at" timestamp with time zone DEFAULT now() NOT NULL;--> statement-breakpoint
ALTER TABLE "client_choice" ADD CONSTRAINT "client_choice_client_id_client_id_fk" FOREIGN KEY ("client_id") REFERENCES "public"."client"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "client_choice" ADD CONSTRAINT "client_choice_chosen_by_staff_id_fk" FOREIGN KEY ("chosen_by") REFERENCES "public"."staff"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "photo" ADD CONSTRAINT "photo_checkin_id_checkin_id_fk" FOREIGN KEY ("checkin_id") REFERENCES "public"."checkin"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "photo" ADD CONSTRAINT "photo_taken_by_staff_id_fk" FOREIGN KEY ("taken_by") REFERENCES "public"."staff"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "weigh_in" ADD CONSTRAINT "weigh_in_client_id_client_id_fk" FOREIGN KEY ("client_id") REFERENCES "public"."client"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "weigh_in" ADD CONSTRAINT "weigh_in_entered_by_staff_id_fk" FOREIGN KEY ("entered_by") REFERENCES "public"."staff"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "client_choice_latest" ON "client_choice" USING btree ("client_id","at");--> statement-breakpoint
CREATE INDEX "photo_checkin" ON "photo" USING btree ("checkin_id","pose");--> statement-breakpoint
CREATE UNIQUE INDEX "weigh_in_one_a_day" ON "weigh_in" USING btree ("client_id","day") WHERE "weigh_in"."struck_at" is null;--> statement-breakpoint
ALTER TABLE "caliper" ADD CONSTRAINT "caliper_resolution" CHECK ("caliper"."resolution_mm" in (0.1, 0.2, 0.5, 1));--> statement-breakpoint
ALTER TABLE "checkin" ADD CONSTRAINT "checkin_kept_words_length" CHECK (length("checkin"."kept_words") <= 4000);