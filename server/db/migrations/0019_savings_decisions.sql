CREATE TABLE "savings_decision" (
	"opportunity_id" text PRIMARY KEY NOT NULL,
	"state" text,
	"who" text NOT NULL,
	"at" timestamp with time zone DEFAULT now() NOT NULL,
	"reason" text,
	"look_again" date,
	"due" date,
	"done_on" date,
	"body" jsonb NOT NULL,
	"notes" jsonb DEFAULT '[]'::jsonb NOT NULL
);
--> statement-breakpoint
CREATE TABLE "savings_threshold" (
	"detector" text NOT NULL,
	"key" text NOT NULL,
	"sub_account" text NOT NULL,
	"value" numeric NOT NULL,
	"who" text NOT NULL,
	"at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "savings_threshold_detector_key_sub_account_pk" PRIMARY KEY("detector","key","sub_account")
);
