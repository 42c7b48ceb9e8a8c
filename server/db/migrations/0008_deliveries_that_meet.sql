CREATE TABLE "period_history" (
	"source" text NOT NULL,
	"start" timestamp with time zone NOT NULL,
	"end" timestamp with time zone NOT NULL,
	"older" jsonb DEFAULT '[]'::jsonb NOT NULL,
	"newer" jsonb DEFAULT '[]'::jsonb NOT NULL,
	CONSTRAINT "period_history_source_start_pk" PRIMARY KEY("source","start")
);
--> statement-breakpoint
CREATE TABLE "side_by_side" (
	"source" text NOT NULL,
	"other" text NOT NULL,
	"who" text NOT NULL,
	CONSTRAINT "side_by_side_source_other_pk" PRIMARY KEY("source","other")
);
--> statement-breakpoint
ALTER TABLE "load" ADD COLUMN "delivered_at" timestamp with time zone;--> statement-breakpoint
ALTER TABLE "load" ADD COLUMN "delivered_by" text DEFAULT 'arrival' NOT NULL;--> statement-breakpoint
ALTER TABLE "load" ADD COLUMN "held" jsonb DEFAULT '{}'::jsonb NOT NULL;--> statement-breakpoint
INSERT INTO "period_history" ("source", "start", "end", "older")
SELECT "source", "start", "end", CASE WHEN "previous_load_id" IS NULL THEN '[]'::jsonb ELSE jsonb_build_array("previous_load_id") END FROM "billing_period";--> statement-breakpoint
INSERT INTO "period_history" ("source", "start", "end", "older")
SELECT away->>'source', (away->>'start')::timestamptz, (away->>'end')::timestamptz, jsonb_build_array((away->>'loadId')::int)
FROM "load", jsonb_array_elements("put_away") away ORDER BY "load"."id" DESC ON CONFLICT DO NOTHING;
