CREATE TABLE "focus_billing_account" (
	"id" integer PRIMARY KEY NOT NULL,
	"digest" text NOT NULL,
	"billing_account_id" text,
	"billing_account_name" text,
	"billing_account_type" text,
	"provider_name" text,
	"publisher_name" text,
	"invoice_issuer_name" text,
	CONSTRAINT "focus_billing_account_digest_unique" UNIQUE("digest")
);
--> statement-breakpoint
CREATE TABLE "focus_charge_kind" (
	"id" integer PRIMARY KEY NOT NULL,
	"digest" text NOT NULL,
	"charge_category" text,
	"charge_class" text,
	"charge_frequency" text,
	"charge_description" text,
	"invoice_id" text,
	CONSTRAINT "focus_charge_kind_digest_unique" UNIQUE("digest")
);
--> statement-breakpoint
CREATE TABLE "focus_commitment" (
	"id" integer PRIMARY KEY NOT NULL,
	"digest" text NOT NULL,
	"commitment_discount_category" text,
	"commitment_discount_id" text,
	"commitment_discount_name" text,
	"commitment_discount_status" text,
	"commitment_discount_type" text,
	"commitment_discount_unit" text,
	"capacity_reservation_id" text,
	"capacity_reservation_status" text,
	CONSTRAINT "focus_commitment_digest_unique" UNIQUE("digest")
);
--> statement-breakpoint
CREATE TABLE "focus_others" (
	"id" integer PRIMARY KEY NOT NULL,
	"digest" text NOT NULL,
	"others" text,
	CONSTRAINT "focus_others_digest_unique" UNIQUE("digest")
);
--> statement-breakpoint
CREATE TABLE "focus_price" (
	"id" integer PRIMARY KEY NOT NULL,
	"digest" text NOT NULL,
	"sku_price_id" text,
	"sku_price_details" text,
	"pricing_category" text,
	"pricing_unit" text,
	"consumed_unit" text,
	"list_unit_price" text,
	"contracted_unit_price" text,
	CONSTRAINT "focus_price_digest_unique" UNIQUE("digest")
);
--> statement-breakpoint
CREATE TABLE "focus_resource" (
	"id" integer PRIMARY KEY NOT NULL,
	"digest" text NOT NULL,
	"resource_id" text,
	"resource_name" text,
	"resource_type" text,
	"region_id" text,
	"region_name" text,
	"availability_zone" text,
	CONSTRAINT "focus_resource_digest_unique" UNIQUE("digest")
);
--> statement-breakpoint
CREATE TABLE "focus_sku" (
	"id" integer PRIMARY KEY NOT NULL,
	"digest" text NOT NULL,
	"service_category" text,
	"service_name" text,
	"service_subcategory" text,
	"sku_id" text,
	"sku_meter" text,
	CONSTRAINT "focus_sku_digest_unique" UNIQUE("digest")
);
--> statement-breakpoint
CREATE TABLE "focus_sub_account" (
	"id" integer PRIMARY KEY NOT NULL,
	"digest" text NOT NULL,
	"sub_account_id" text,
	"sub_account_name" text,
	"sub_account_type" text,
	CONSTRAINT "focus_sub_account_digest_unique" UNIQUE("digest")
);
--> statement-breakpoint
CREATE TABLE "focus_tag_set" (
	"id" integer PRIMARY KEY NOT NULL,
	"digest" text NOT NULL,
	"tags" text,
	CONSTRAINT "focus_tag_set_digest_unique" UNIQUE("digest")
);
--> statement-breakpoint
CREATE TABLE "data_revision" (
	"id" integer PRIMARY KEY NOT NULL,
	"revision" integer NOT NULL
);
--> statement-breakpoint
CREATE TABLE "load" (
	"id" serial PRIMARY KEY NOT NULL,
	"source" text NOT NULL,
	"state" text NOT NULL,
	"who" text NOT NULL,
	"started_at" timestamp with time zone DEFAULT now() NOT NULL,
	"finished_at" timestamp with time zone,
	"files" jsonb NOT NULL,
	"rows" integer DEFAULT 0 NOT NULL,
	"periods" jsonb DEFAULT '[]'::jsonb NOT NULL,
	"changes" jsonb DEFAULT '[]'::jsonb NOT NULL,
	"warnings" jsonb DEFAULT '[]'::jsonb NOT NULL,
	"error_count" integer DEFAULT 0 NOT NULL,
	"errors" jsonb DEFAULT '[]'::jsonb NOT NULL,
	"message" text
);
--> statement-breakpoint
CREATE TABLE "billing_period" (
	"source" text NOT NULL,
	"start" timestamp with time zone NOT NULL,
	"end" timestamp with time zone NOT NULL,
	"load_id" integer NOT NULL,
	"revision" integer NOT NULL,
	CONSTRAINT "billing_period_source_start_pk" PRIMARY KEY("source","start")
);
--> statement-breakpoint
CREATE TABLE "charge" (
	"load_id" integer NOT NULL,
	"billing_period_start" timestamp with time zone NOT NULL,
	"charge_period_start" timestamp with time zone NOT NULL,
	"charge_period_end" timestamp with time zone NOT NULL,
	"billing_currency" char(3) NOT NULL,
	"billing_account" integer NOT NULL,
	"sub_account" integer NOT NULL,
	"resource" integer NOT NULL,
	"sku" integer NOT NULL,
	"price" integer NOT NULL,
	"commitment" integer NOT NULL,
	"charge_kind" integer NOT NULL,
	"tag_set" integer NOT NULL,
	"others" integer NOT NULL,
	"billed_cost" numeric(38, 15) NOT NULL,
	"effective_cost" numeric(38, 15) NOT NULL,
	"list_cost" numeric(38, 15) NOT NULL,
	"contracted_cost" numeric(38, 15) NOT NULL,
	"pricing_quantity" numeric(38, 15),
	"consumed_quantity" numeric(38, 15)
);
--> statement-breakpoint
CREATE TABLE "person" (
	"id" text PRIMARY KEY NOT NULL,
	"name" text NOT NULL,
	"role" text NOT NULL
);
--> statement-breakpoint
CREATE TABLE "rate_card" (
	"provider" text NOT NULL,
	"valid_from" date NOT NULL,
	"body" jsonb NOT NULL,
	"who" text NOT NULL,
	"loaded_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "rate_card_provider_valid_from_pk" PRIMARY KEY("provider","valid_from")
);
--> statement-breakpoint
CREATE TABLE "allocation_version" (
	"version" serial PRIMARY KEY NOT NULL,
	"body" jsonb NOT NULL,
	"who" text NOT NULL,
	"saved_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "estimate_version" (
	"estimate_id" text NOT NULL,
	"version" integer NOT NULL,
	"body" jsonb NOT NULL,
	"who" text NOT NULL,
	"saved_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "estimate_version_estimate_id_version_pk" PRIMARY KEY("estimate_id","version")
);
--> statement-breakpoint
CREATE TABLE "action" (
	"id" serial PRIMARY KEY NOT NULL,
	"opportunity_id" text NOT NULL,
	"request_key" text NOT NULL,
	"state" text NOT NULL,
	"approved_by" text NOT NULL,
	"approved_at" timestamp with time zone DEFAULT now() NOT NULL,
	"done_at" timestamp with time zone,
	"promised_monthly" numeric NOT NULL,
	"currency" text NOT NULL,
	"tries" integer DEFAULT 0 NOT NULL,
	"steps" jsonb DEFAULT '[]'::jsonb NOT NULL,
	CONSTRAINT "action_opportunity_id_unique" UNIQUE("opportunity_id"),
	CONSTRAINT "action_request_key_unique" UNIQUE("request_key")
);
--> statement-breakpoint
CREATE TABLE "opportunity" (
	"id" text PRIMARY KEY NOT NULL,
	"state" text NOT NULL,
	"body" jsonb NOT NULL,
	"found_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
ALTER TABLE "billing_period" ADD CONSTRAINT "billing_period_load_id_load_id_fk" FOREIGN KEY ("load_id") REFERENCES "public"."load"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "action" ADD CONSTRAINT "action_opportunity_id_opportunity_id_fk" FOREIGN KEY ("opportunity_id") REFERENCES "public"."opportunity"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "charge_by_load" ON "charge" USING btree ("load_id","billing_period_start");