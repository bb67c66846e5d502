ALTER TABLE "imported_item" DROP CONSTRAINT "imported_item_kind";--> statement-breakpoint
ALTER TABLE "hand_in" ALTER COLUMN "link_id" DROP NOT NULL;--> statement-breakpoint
CREATE INDEX "imported_item_item" ON "imported_item" USING btree ("item_id");--> statement-breakpoint
ALTER TABLE "imported_item" ADD CONSTRAINT "imported_item_kind" CHECK ("imported_item"."kind" in ('client', 'checkin', 'weigh-in', 'other'));