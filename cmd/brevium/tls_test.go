package main

import (
	"bufio"
	"context"
	"crypto/ecdsa"
	"crypto/elliptic"
	"crypto/rand"
	"crypto/tls"
	"crypto/x509"
	"crypto/x509/pkix"
	"encoding/pem"
	"math/big"
	"net"
	"net/http"
	"net/http/cookiejar"
	"net/http/httptest"
	"net/http/httputil"
	"net/url"
	"os"
	"path/filepath"
	"regexp"
	"strings"
	"syscall"
	"testing"
	"time"
)

// workshopAt starts a workshop with more flags, and gives where it is and the code to set it up.
func workshopAt(t *testing.T, flags ...string) (at *url.URL, code string) {
	t.Helper()
	c := command(t.Context(), append([]string{"serve", "--workshop", "--address", "127.0.0.1:0", "--host", "workshop.lan", "--data", filepath.Join(t.TempDir(), "data")}, flags...)...)
	out, err := c.StdoutPipe()
	if err != nil {
		t.Fatal(err)
	}
	if err := c.Start(); err != nil {
		t.Fatal(err)
	}
	t.Cleanup(func() {
		_ = c.Process.Signal(syscall.SIGTERM)
		_ = c.Wait()
	})
	lines := bufio.NewScanner(out)
	for lines.Scan() {
		if found := regexp.MustCompile(`([a-z2-7]{4}-){7}[a-z2-7]{4}`).FindString(lines.Text()); found != "" {
			code = found
		}
		if found := regexp.MustCompile(`https?://[0-9.:]+`).FindString(lines.Text()); found != "" {
			if at, err = url.Parse(found); err != nil {
				t.Fatal(err)
			}
			return at, code
		}
	}
	t.Fatal("it does not say where it is")
	return nil, ""
}

// certificate writes a certificate for workshop.lan and its key, and gives the pool that knows
// it.
func certificate(t *testing.T) (cert, key string, known *x509.CertPool) {
	t.Helper()
	private, err := ecdsa.GenerateKey(elliptic.P256(), rand.Reader)
	if err != nil {
		t.Fatal(err)
	}
	x := &x509.Certificate{
		SerialNumber: big.NewInt(1), Subject: pkix.Name{CommonName: "workshop.lan"}, DNSNames: []string{"workshop.lan"},
		NotBefore: time.Now().Add(-time.Hour), NotAfter: time.Now().Add(time.Hour), IsCA: true, BasicConstraintsValid: true, KeyUsage: x509.KeyUsageDigitalSignature | x509.KeyUsageCertSign,
	}
	der, err := x509.CreateCertificate(rand.Reader, x, x, private.Public(), private)
	if err != nil {
		t.Fatal(err)
	}
	pkcs, err := x509.MarshalPKCS8PrivateKey(private)
	if err != nil {
		t.Fatal(err)
	}
	known = x509.NewCertPool()
	cert, key = filepath.Join(t.TempDir(), "cert.pem"), filepath.Join(t.TempDir(), "key.pem")
	for name, b := range map[string]*pem.Block{cert: {Type: "CERTIFICATE", Bytes: der}, key: {Type: "PRIVATE KEY", Bytes: pkcs}} {
		if err := os.WriteFile(name, pem.EncodeToMemory(b), 0o600); err != nil {
			t.Fatal(err)
		}
	}
	if text, err := os.ReadFile(cert); err != nil || !known.AppendCertsFromPEM(text) {
		t.Fatal("the certificate is none", err)
	}
	return cert, key, known
}

// asked is a browser that finds workshop.lan at an address.
func asked(t *testing.T, at string, known *x509.CertPool) *http.Client {
	t.Helper()
	jar, err := cookiejar.New(nil)
	if err != nil {
		t.Fatal(err)
	}
	return &http.Client{
		Jar: jar, CheckRedirect: func(*http.Request, []*http.Request) error { return http.ErrUseLastResponse },
		Transport: &http.Transport{TLSClientConfig: &tls.Config{RootCAs: known}, DialContext: func(ctx context.Context, network, _ string) (net.Conn, error) {
			return (&net.Dialer{}).DialContext(ctx, network, at)
		}},
	}
}

// story signs in over TLS as the first steward, and looks what was noted of it.
func story(t *testing.T, client *http.Client, code, from string) {
	t.Helper()
	const at = "https://workshop.lan"
	ask := func(method, path string, form url.Values, header map[string]string) (*http.Response, string) {
		t.Helper()
		r, err := http.NewRequest(method, at+path, strings.NewReader(form.Encode()))
		if err != nil {
			t.Fatal(err)
		}
		if method == http.MethodPost {
			r.Header.Set("Content-Type", "application/x-www-form-urlencoded")
			r.Header.Set("Origin", at)
		}
		for k, v := range header {
			r.Header.Set(k, v)
		}
		a, err := client.Do(r)
		if err != nil {
			t.Fatal(err)
		}
		defer a.Body.Close()
		var text strings.Builder
		if _, err := bufio.NewReader(a.Body).WriteTo(&text); err != nil {
			t.Fatal(err)
		}
		return a, text.String()
	}
	if a, _ := ask(http.MethodPost, "/set-up", url.Values{"code": {code}, "name": {"Wren"}, "password": {"seven kraft sheets"}}, map[string]string{"X-Forwarded-For": "6.6.6.6"}); a.StatusCode != http.StatusSeeOther {
		t.Fatalf("set up over TLS: %d", a.StatusCode)
	}
	a, page := ask(http.MethodGet, "/people", nil, nil)
	if a.StatusCode != http.StatusOK || !strings.Contains(page, "Wren") {
		t.Fatalf("signed in over TLS the steward gets %d", a.StatusCode)
	}
	if !strings.HasPrefix(a.Header.Get("Strict-Transport-Security"), "max-age=15768000") {
		t.Errorf("it says %q", a.Header.Get("Strict-Transport-Security"))
	}
	if !strings.Contains(page, from) || strings.Contains(page, "6.6.6.6") {
		t.Errorf("it was noted from elsewhere than %s", from)
	}
	if _, page := ask(http.MethodPost, "/people/invite", url.Values{"role": {"maker"}, "days": {"1"}}, nil); !strings.Contains(page, at+"/join/") {
		t.Error("the link to join does not lead back over TLS")
	}
	if a, _ := ask(http.MethodPost, "/people/invite", url.Values{"role": {"maker"}, "days": {"1"}}, map[string]string{"Origin": "https://elsewhere.example"}); a.StatusCode != http.StatusForbidden {
		t.Errorf("a form from elsewhere: %d", a.StatusCode)
	}
}

// By a certificate of its own.
func TestServedOverTLS(t *testing.T) {
	cert, key, known := certificate(t)
	at, code := workshopAt(t, "--cert", cert, "--key", key)
	if at.Scheme != "https" {
		t.Fatalf("it is at %s", at)
	}
	story(t, asked(t, at.Host, known), code, "127.0.0.1")
	plain, err := http.Get("http://" + at.Host + "/")
	if err != nil {
		t.Fatal(err)
	}
	defer plain.Body.Close()
	if plain.StatusCode != http.StatusBadRequest {
		t.Errorf("without TLS it answers %d", plain.StatusCode)
	}
}

// Behind a proxy that does TLS, and says whom a request comes from.
func TestServedBehindAProxy(t *testing.T) {
	at, code := workshopAt(t, "--proxy", "127.0.0.1")
	cert, key, known := certificate(t)
	pair, err := tls.LoadX509KeyPair(cert, key)
	if err != nil {
		t.Fatal(err)
	}
	proxy := httptest.NewUnstartedServer(&httputil.ReverseProxy{
		Rewrite: func(r *httputil.ProxyRequest) {
			r.SetURL(at)
			r.Out.Host = r.In.Host
			// As one sends on what it got, and adds the address that it saw.
			r.Out.Header["X-Forwarded-For"] = append(r.In.Header["X-Forwarded-For"], "10.9.8.7")
			r.Out.Header.Set("X-Forwarded-Proto", "https")
		},
		ModifyResponse: func(a *http.Response) error {
			a.Header.Set("Strict-Transport-Security", "max-age=15768000")
			return nil
		},
	})
	proxy.TLS = &tls.Config{Certificates: []tls.Certificate{pair}}
	proxy.StartTLS()
	defer proxy.Close()
	story(t, asked(t, proxy.Listener.Addr().String(), known), code, "10.9.8.7")
}
