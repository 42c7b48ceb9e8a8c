CREATE TABLE "order_deed" (
	"id" serial PRIMARY KEY NOT NULL,
	"order_id" uuid NOT NULL,
	"resource_id" text NOT NULL,
	"what" text NOT NULL,
	"request_key" text NOT NULL,
	"state" text NOT NULL,
	"tries" integer DEFAULT 0 NOT NULL,
	"steps" jsonb DEFAULT '[]'::jsonb NOT NULL,
	CONSTRAINT "order_deed_request_key_unique" UNIQUE("request_key"),
	CONSTRAINT "order_deed_once" UNIQUE("order_id","resource_id","what")
);
--> statement-breakpoint
CREATE TABLE "order_exception" (
	"order_id" uuid NOT NULL,
	"resource_id" text NOT NULL,
	"reason" text NOT NULL,
	"until" date,
	"who" text NOT NULL,
	"at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "order_exception_order_id_resource_id_pk" PRIMARY KEY("order_id","resource_id")
);
--> statement-breakpoint
CREATE TABLE "order_finding" (
	"order_id" uuid NOT NULL,
	"resource_id" text NOT NULL,
	"since" date NOT NULL,
	CONSTRAINT "order_finding_order_id_resource_id_pk" PRIMARY KEY("order_id","resource_id")
);
--> statement-breakpoint
CREATE TABLE "order_run" (
	"id" serial PRIMARY KEY NOT NULL,
	"order_id" uuid NOT NULL,
	"revision" integer NOT NULL,
	"is_dry" boolean NOT NULL,
	"cause" text NOT NULL,
	"who" text NOT NULL,
	"began_at" timestamp with time zone DEFAULT now() NOT NULL,
	"ended_at" timestamp with time zone,
	"state" text NOT NULL,
	"said" text DEFAULT '' NOT NULL,
	"items" jsonb DEFAULT '[]'::jsonb NOT NULL
);
--> statement-breakpoint
CREATE TABLE "standing_order" (
	"id" uuid PRIMARY KEY NOT NULL,
	"definition" jsonb NOT NULL,
	"revision" integer DEFAULT 1 NOT NULL,
	"tried_revision" integer,
	"is_on" boolean DEFAULT false NOT NULL,
	"asked" jsonb,
	"told_to" bigint DEFAULT 0 NOT NULL,
	"who" text NOT NULL,
	"changed_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
ALTER TABLE "outside_event" ADD COLUMN "raw" text;--> statement-breakpoint
ALTER TABLE "outside_event" ADD COLUMN "told" bigserial NOT NULL;--> statement-breakpoint
ALTER TABLE "order_deed" ADD CONSTRAINT "order_deed_order_id_standing_order_id_fk" FOREIGN KEY ("order_id") REFERENCES "public"."standing_order"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "order_exception" ADD CONSTRAINT "order_exception_order_id_standing_order_id_fk" FOREIGN KEY ("order_id") REFERENCES "public"."standing_order"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "order_finding" ADD CONSTRAINT "order_finding_order_id_standing_order_id_fk" FOREIGN KEY ("order_id") REFERENCES "public"."standing_order"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "order_run" ADD CONSTRAINT "order_run_order_id_standing_order_id_fk" FOREIGN KEY ("order_id") REFERENCES "public"."standing_order"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "order_run_of" ON "order_run" USING btree ("order_id","id");--> statement-breakpoint
CREATE INDEX "outside_event_told" ON "outside_event" USING btree ("told");