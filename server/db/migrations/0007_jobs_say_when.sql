DROP TABLE "card_schedule" CASCADE;--> statement-breakpoint
ALTER TABLE "source_watch" DROP COLUMN "every_minutes";--> statement-breakpoint
ALTER TABLE "source_watch" DROP COLUMN "last_asked_at";--> statement-breakpoint
ALTER TABLE "source_watch" DROP COLUMN "last_said";--> statement-breakpoint
ALTER TABLE "saved_sentence" DROP COLUMN "last_sent_at";--> statement-breakpoint
ALTER TABLE "saved_sentence" DROP COLUMN "last_tried_at";--> statement-breakpoint
ALTER TABLE "saved_sentence" DROP COLUMN "last_said";