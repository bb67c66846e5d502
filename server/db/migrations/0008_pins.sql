CREATE TABLE "pinned_start" (
	"id" uuid PRIMARY KEY NOT NULL,
	"client_id" uuid NOT NULL,
	"checkin_id" uuid NOT NULL,
	"at" timestamp with time zone DEFAULT now() NOT NULL,
	"pinned_by" uuid NOT NULL
);
--> statement-breakpoint
ALTER TABLE "client" ADD COLUMN "worthwhile_fat_kg" double precision;--> statement-breakpoint
ALTER TABLE "client" ADD COLUMN "worthwhile_sum_percent" double precision;--> statement-breakpoint
ALTER TABLE "studio" ADD COLUMN "worthwhile_fat_kg" double precision DEFAULT 0.5 NOT NULL;--> statement-breakpoint
ALTER TABLE "studio" ADD COLUMN "worthwhile_sum_percent" double precision DEFAULT 5 NOT NULL;--> statement-breakpoint
ALTER TABLE "pinned_start" ADD CONSTRAINT "pinned_start_client_id_client_id_fk" FOREIGN KEY ("client_id") REFERENCES "public"."client"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "pinned_start" ADD CONSTRAINT "pinned_start_checkin_id_checkin_id_fk" FOREIGN KEY ("checkin_id") REFERENCES "public"."checkin"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "pinned_start" ADD CONSTRAINT "pinned_start_pinned_by_staff_id_fk" FOREIGN KEY ("pinned_by") REFERENCES "public"."staff"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "pinned_start_latest" ON "pinned_start" USING btree ("client_id","at");