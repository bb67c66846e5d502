ALTER TABLE "checkin" ADD COLUMN "voided_at" timestamp with time zone;--> statement-breakpoint
ALTER TABLE "checkin" ADD COLUMN "void_reason" text;--> statement-breakpoint
ALTER TABLE "checkin" ADD COLUMN "voided_by" uuid;--> statement-breakpoint
ALTER TABLE "checkin" ADD CONSTRAINT "checkin_voided_by_staff_id_fk" FOREIGN KEY ("voided_by") REFERENCES "public"."staff"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "checkin" ADD CONSTRAINT "checkin_void" CHECK (("checkin"."voided_at" is null) = ("checkin"."void_reason" is null) and length("checkin"."void_reason") <= 300);