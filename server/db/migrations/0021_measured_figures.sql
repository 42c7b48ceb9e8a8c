CREATE TABLE "measured_figures" (
	"connection" text NOT NULL,
	"type" text NOT NULL,
	"metric" text NOT NULL,
	"month" text NOT NULL,
	"part" integer NOT NULL,
	"resources" jsonb NOT NULL,
	"bytes" "bytea" NOT NULL,
	CONSTRAINT "measured_figures_connection_type_metric_month_part_pk" PRIMARY KEY("connection","type","metric","month","part")
);
