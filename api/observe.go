package api

import (
	"log/slog"
	"net/http"
	"strconv"

	"github.com/gin-gonic/gin"
	"github.com/oklog/ulid/v2"
	"github.com/prometheus/client_golang/prometheus"
	"github.com/prometheus/client_golang/prometheus/collectors"
	"github.com/prometheus/client_golang/prometheus/promhttp"

	"patientladder/api/admit"
	"patientladder/clock"
	"patientladder/store"
)

// requestHeader names a request in its answer and in the log, so that somebody who reports a mistake can say which it was.
const requestHeader = "X-Request-Id"

// requestKey is where a request keeps its name.
const requestKey = "request"

// measures are what is counted of requests. Labels are routes as the contract has them: no names, addresses or tokens.
type measures struct {
	registry *prometheus.Registry
	took     *prometheus.HistogramVec
	running  prometheus.Gauge
}

func newMeasures(st *store.Store, b budgets) measures {
	m := measures{
		registry: prometheus.NewRegistry(),
		took: prometheus.NewHistogramVec(prometheus.HistogramOpts{
			Name: "ladder_request_seconds", Help: "How long requests took, by route, method and class of status.",
			Buckets: []float64{.005, .01, .025, .05, .1, .25, .5, 1, 2, 5},
		}, []string{"route", "method", "status"}),
		running: prometheus.NewGauge(prometheus.GaugeOpts{Name: "ladder_requests_running", Help: "Requests under way."}),
	}
	m.registry.MustRegister(
		m.took,
		m.running,
		collectors.NewGoCollector(),
		collectors.NewProcessCollector(collectors.ProcessCollectorOpts{}),
		collectors.NewDBStatsCollector(st.DB(), "ladder"),
	)
	for name, x := range map[string]*admit.Budget{"hashing": b.hashing, "bodies": b.bodies, "reading": b.reading, "studio": b.studio, "export": b.export} {
		labels := prometheus.Labels{"kind": name}
		gauge := func(metric, help string, of func(admit.State) int) {
			m.registry.MustRegister(
				prometheus.NewGaugeFunc(
					prometheus.GaugeOpts{Name: metric, Help: help, ConstLabels: labels},
					func() float64 { return float64(of(x.State())) },
				),
			)
		}
		gauge("ladder_budget_working", "Heavy work under way, by kind.", func(s admit.State) int { return s.Working })
		gauge("ladder_budget_waiting", "Heavy work that waits, by kind.", func(s admit.State) int { return s.Waiting })
		gauge("ladder_budget_refused", "Heavy work that was turned away since the start, by kind.", func(s admit.State) int { return s.Refused })
	}
	return m
}

// Metrics are the measures in the format of Prometheus. Serve them where only the operator reaches them.
func (s *Server) Metrics() http.Handler {
	return promhttp.HandlerFor(s.measures.registry, promhttp.HandlerOpts{})
}

// observe names each request, measures it and logs one line.
func (s *Server) observe(c *gin.Context) {
	began := clock.Real()
	id := ulid.Make().String()
	c.Set(requestKey, id)
	c.Header(requestHeader, id)
	s.measures.running.Inc()
	defer func() {
		s.measures.running.Dec()
		route := c.FullPath()
		if route == "" {
			route = "page"
		}
		took, status := clock.Real().Sub(began), c.Writer.Status()
		s.measures.took.WithLabelValues(route, c.Request.Method, strconv.Itoa(status/100)+"xx").Observe(took.Seconds())
		s.log.Log(
			c.Request.Context(),
			slog.LevelDebug,
			"request",
			"id",
			id,
			"method",
			c.Request.Method,
			"route",
			route,
			"status",
			status,
			"ms",
			took.Milliseconds(),
		)
	}()
	c.Next()
}

// Stopping makes the server say that it is not ready any more, so that no new requests are sent to it.
func (s *Server) Stopping() { s.stopping.Store(true) }

// health answers whether the process lives, and whether it can serve.
func (s *Server) health(e *gin.Engine) {
	e.GET("/livez", func(c *gin.Context) { c.String(http.StatusOK, "ok\n") })
	ready := func(c *gin.Context) {
		switch {
		case s.stopping.Load():
			c.String(http.StatusServiceUnavailable, "stopping\n")
		case s.desk.Store.Ping(c.Request.Context()) != nil:
			c.String(http.StatusServiceUnavailable, "the database does not answer\n")
		default:
			c.String(http.StatusOK, "ok\n")
		}
	}
	e.GET("/readyz", ready)
	e.GET("/healthz", ready)
}
