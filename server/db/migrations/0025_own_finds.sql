CREATE TABLE "savings_choice" (
	"provider" text NOT NULL,
	"resource_id" text NOT NULL,
	"sku" text NOT NULL,
	"way" text NOT NULL,
	"who" text NOT NULL,
	"at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "savings_choice_provider_resource_id_sku_pk" PRIMARY KEY("provider","resource_id","sku")
);
--> statement-breakpoint
CREATE TABLE "savings_rule" (
	"id" uuid PRIMARY KEY NOT NULL,
	"definition" jsonb NOT NULL,
	"who" text NOT NULL,
	"at" timestamp with time zone DEFAULT now() NOT NULL
);
