ALTER TABLE "opportunity" ADD COLUMN "detector" text;--> statement-breakpoint
ALTER TABLE "opportunity" ADD COLUMN "connection" text;--> statement-breakpoint
UPDATE "opportunity" SET "detector" = "body"->>'detector', "connection" = coalesce((SELECT min(c."name") FROM "connection" c WHERE c."provider" = "opportunity"."body"->>'provider'), '');--> statement-breakpoint
ALTER TABLE "opportunity" ALTER COLUMN "detector" SET NOT NULL;--> statement-breakpoint
ALTER TABLE "opportunity" ALTER COLUMN "connection" SET NOT NULL;
