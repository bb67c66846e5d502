CREATE INDEX "checkin_open" ON "checkin" USING btree ("client_id") WHERE "checkin"."finished_at" is null;--> statement-breakpoint
CREATE INDEX "checkin_day" ON "checkin" USING btree ("day");