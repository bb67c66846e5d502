CREATE TABLE "client_schedule" (
	"id" uuid PRIMARY KEY NOT NULL,
	"client_id" uuid NOT NULL,
	"schedule" jsonb NOT NULL,
	"at" timestamp with time zone DEFAULT now() NOT NULL,
	"set_by" uuid NOT NULL
);
--> statement-breakpoint
ALTER TABLE "client_schedule" ADD CONSTRAINT "client_schedule_client_id_client_id_fk" FOREIGN KEY ("client_id") REFERENCES "public"."client"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "client_schedule" ADD CONSTRAINT "client_schedule_set_by_staff_id_fk" FOREIGN KEY ("set_by") REFERENCES "public"."staff"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "client_schedule_latest" ON "client_schedule" USING btree ("client_id","at");