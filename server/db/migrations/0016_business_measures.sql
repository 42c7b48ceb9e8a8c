CREATE TABLE "business_measure" (
	"name" text PRIMARY KEY NOT NULL,
	"unit" text NOT NULL,
	"grain" text NOT NULL,
	"tree" text,
	"version" integer NOT NULL,
	"who" text NOT NULL,
	"saved_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "measure_value" (
	"measure" text NOT NULL,
	"centre" text NOT NULL,
	"date" text NOT NULL,
	"value" numeric NOT NULL,
	CONSTRAINT "measure_value_measure_centre_date_pk" PRIMARY KEY("measure","centre","date")
);
--> statement-breakpoint
ALTER TABLE "measure_value" ADD CONSTRAINT "measure_value_measure_business_measure_name_fk" FOREIGN KEY ("measure") REFERENCES "public"."business_measure"("name") ON DELETE cascade ON UPDATE no action;