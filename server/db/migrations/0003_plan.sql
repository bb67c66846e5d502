CREATE TABLE "plan" (
	"id" uuid PRIMARY KEY NOT NULL,
	"client_id" uuid NOT NULL,
	"checkin_id" uuid NOT NULL,
	"kind" text NOT NULL,
	"value" double precision NOT NULL,
	"per_week" double precision NOT NULL,
	"unit" text NOT NULL,
	"by_day" date,
	"at" timestamp with time zone DEFAULT now() NOT NULL,
	"set_by" uuid NOT NULL,
	"ended_at" timestamp with time zone,
	CONSTRAINT "plan_kind" CHECK ("plan"."kind" in ('percent', 'fat', 'weight', 'sum')),
	CONSTRAINT "plan_unit" CHECK (case "plan"."kind" when 'percent' then "plan"."unit" = '%' when 'sum' then "plan"."unit" = 'mm' else "plan"."unit" in ('kg', 'lb') end),
	CONSTRAINT "plan_pace" CHECK ("plan"."per_week" > 0 and "plan"."value" > 0)
);
--> statement-breakpoint
ALTER TABLE "plan" ADD CONSTRAINT "plan_client_id_client_id_fk" FOREIGN KEY ("client_id") REFERENCES "public"."client"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "plan" ADD CONSTRAINT "plan_checkin_id_checkin_id_fk" FOREIGN KEY ("checkin_id") REFERENCES "public"."checkin"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "plan" ADD CONSTRAINT "plan_set_by_staff_id_fk" FOREIGN KEY ("set_by") REFERENCES "public"."staff"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "plan_latest" ON "plan" USING btree ("client_id","at");