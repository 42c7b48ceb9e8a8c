CREATE TABLE "inventory_day" (
	"connection" text NOT NULL,
	"type" text NOT NULL,
	"day" date NOT NULL,
	"resources" jsonb NOT NULL,
	CONSTRAINT "inventory_day_connection_type_day_pk" PRIMARY KEY("connection","type","day")
);
--> statement-breakpoint
CREATE TABLE "measured_block" (
	"connection" text NOT NULL,
	"type" text NOT NULL,
	"metric" text NOT NULL,
	"day" date NOT NULL,
	"resources" jsonb NOT NULL,
	"bytes" "bytea" NOT NULL,
	CONSTRAINT "measured_block_connection_type_metric_day_pk" PRIMARY KEY("connection","type","metric","day")
);
--> statement-breakpoint
CREATE TABLE "outside_event" (
	"connection" text NOT NULL,
	"id" text NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"resource_id" text NOT NULL,
	"what" text NOT NULL,
	"by" text NOT NULL,
	CONSTRAINT "outside_event_connection_id_pk" PRIMARY KEY("connection","id")
);
