CREATE TABLE "closed_month" (
	"month" text PRIMARY KEY NOT NULL,
	"measure" text NOT NULL,
	"version" integer NOT NULL,
	"settled_version" integer NOT NULL,
	"report_currency" text,
	"rates" jsonb NOT NULL,
	"beside" text NOT NULL,
	"trees" jsonb NOT NULL,
	"who" text NOT NULL,
	"closed_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "closed_month_load" (
	"month" text NOT NULL,
	"source" text NOT NULL,
	"start" timestamp with time zone NOT NULL,
	"load_id" integer NOT NULL,
	CONSTRAINT "closed_month_load_month_source_start_pk" PRIMARY KEY("month","source","start")
);
--> statement-breakpoint
ALTER TABLE "closed_month" ADD CONSTRAINT "closed_month_version_allocation_version_version_fk" FOREIGN KEY ("version") REFERENCES "public"."allocation_version"("version") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "closed_month" ADD CONSTRAINT "closed_month_settled_version_allocation_version_version_fk" FOREIGN KEY ("settled_version") REFERENCES "public"."allocation_version"("version") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "closed_month_load" ADD CONSTRAINT "closed_month_load_month_closed_month_month_fk" FOREIGN KEY ("month") REFERENCES "public"."closed_month"("month") ON DELETE no action ON UPDATE no action;