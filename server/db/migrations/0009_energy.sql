CREATE TABLE "intake" (
	"id" uuid PRIMARY KEY NOT NULL,
	"client_id" uuid NOT NULL,
	"day" date NOT NULL,
	"kcal" integer NOT NULL,
	"source" text NOT NULL,
	"entered_by" uuid,
	"entered_at" timestamp with time zone DEFAULT now() NOT NULL,
	"struck_at" timestamp with time zone,
	CONSTRAINT "intake_kcal" CHECK ("intake"."kcal" between 500 and 10000),
	CONSTRAINT "intake_day" CHECK ("intake"."day" >= '1990-01-01')
);
--> statement-breakpoint
ALTER TABLE "studio" ADD COLUMN "energy_accepted_at" timestamp with time zone;--> statement-breakpoint
ALTER TABLE "plan" ADD COLUMN "energy" jsonb;--> statement-breakpoint
ALTER TABLE "intake" ADD CONSTRAINT "intake_client_id_client_id_fk" FOREIGN KEY ("client_id") REFERENCES "public"."client"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "intake" ADD CONSTRAINT "intake_entered_by_staff_id_fk" FOREIGN KEY ("entered_by") REFERENCES "public"."staff"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE UNIQUE INDEX "intake_one_a_day" ON "intake" USING btree ("client_id","day") WHERE "intake"."struck_at" is null;