ALTER TABLE "person" ADD COLUMN "bound" jsonb;--> statement-breakpoint
ALTER TABLE "person" ADD COLUMN "sees_pools" boolean DEFAULT false NOT NULL;--> statement-breakpoint
-- where a name was kept, the id of the one person who has it is
UPDATE "allocation_version" SET "who" = p."id" FROM "person" p WHERE p."name" = "allocation_version"."who" AND (SELECT count(*) FROM "person" q WHERE q."name" = p."name") = 1;--> statement-breakpoint
UPDATE "lookup_version" SET "who" = p."id" FROM "person" p WHERE p."name" = "lookup_version"."who" AND (SELECT count(*) FROM "person" q WHERE q."name" = p."name") = 1;--> statement-breakpoint
UPDATE "side_by_side" SET "who" = p."id" FROM "person" p WHERE p."name" = "side_by_side"."who" AND (SELECT count(*) FROM "person" q WHERE q."name" = p."name") = 1;--> statement-breakpoint
UPDATE "connection" SET "who" = p."id" FROM "person" p WHERE p."name" = "connection"."who" AND (SELECT count(*) FROM "person" q WHERE q."name" = p."name") = 1;--> statement-breakpoint
UPDATE "estimate_version" SET "who" = p."id" FROM "person" p WHERE p."name" = "estimate_version"."who" AND (SELECT count(*) FROM "person" q WHERE q."name" = p."name") = 1;--> statement-breakpoint
UPDATE "estimate_filing" SET "who" = p."id" FROM "person" p WHERE p."name" = "estimate_filing"."who" AND (SELECT count(*) FROM "person" q WHERE q."name" = p."name") = 1;--> statement-breakpoint
UPDATE "estimate_link" SET "who" = p."id" FROM "person" p WHERE p."name" = "estimate_link"."who" AND (SELECT count(*) FROM "person" q WHERE q."name" = p."name") = 1;--> statement-breakpoint
UPDATE "load" SET "who" = p."id" FROM "person" p WHERE p."name" = "load"."who" AND (SELECT count(*) FROM "person" q WHERE q."name" = p."name") = 1;--> statement-breakpoint
UPDATE "source_mapping" SET "who" = p."id" FROM "person" p WHERE p."name" = "source_mapping"."who" AND (SELECT count(*) FROM "person" q WHERE q."name" = p."name") = 1;--> statement-breakpoint
UPDATE "source_watch" SET "who" = p."id" FROM "person" p WHERE p."name" = "source_watch"."who" AND (SELECT count(*) FROM "person" q WHERE q."name" = p."name") = 1;--> statement-breakpoint
UPDATE "rate_card" SET "who" = p."id" FROM "person" p WHERE p."name" = "rate_card"."who" AND (SELECT count(*) FROM "person" q WHERE q."name" = p."name") = 1;--> statement-breakpoint
UPDATE "uplift_set" SET "who" = p."id" FROM "person" p WHERE p."name" = "uplift_set"."who" AND (SELECT count(*) FROM "person" q WHERE q."name" = p."name") = 1;--> statement-breakpoint
UPDATE "pattern" SET "who" = p."id" FROM "person" p WHERE p."name" = "pattern"."who" AND (SELECT count(*) FROM "person" q WHERE q."name" = p."name") = 1;--> statement-breakpoint
UPDATE "spend_reference" SET "who" = p."id" FROM "person" p WHERE p."name" = "spend_reference"."who" AND (SELECT count(*) FROM "person" q WHERE q."name" = p."name") = 1;--> statement-breakpoint
UPDATE "exchange_rate" SET "who" = p."id" FROM "person" p WHERE p."name" = "exchange_rate"."who" AND (SELECT count(*) FROM "person" q WHERE q."name" = p."name") = 1;--> statement-breakpoint
UPDATE "invoice" SET "who" = p."id" FROM "person" p WHERE p."name" = "invoice"."who" AND (SELECT count(*) FROM "person" q WHERE q."name" = p."name") = 1;--> statement-breakpoint
UPDATE "resource_note" SET "who" = p."id" FROM "person" p WHERE p."name" = "resource_note"."who" AND (SELECT count(*) FROM "person" q WHERE q."name" = p."name") = 1;--> statement-breakpoint
UPDATE "saved_sentence" SET "owner" = p."id" FROM "person" p WHERE p."name" = "saved_sentence"."owner" AND (SELECT count(*) FROM "person" q WHERE q."name" = p."name") = 1;--> statement-breakpoint
UPDATE "action" SET "approved_by" = p."id" FROM "person" p WHERE p."name" = "action"."approved_by" AND (SELECT count(*) FROM "person" q WHERE q."name" = p."name") = 1;--> statement-breakpoint
UPDATE "job" SET "tell" = p."id" FROM "person" p WHERE p."name" = "job"."tell" AND (SELECT count(*) FROM "person" q WHERE q."name" = p."name") = 1;
