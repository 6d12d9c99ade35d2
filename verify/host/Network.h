// The local network as both cores document it: there from a time on, and somebody who asks for a path at another.
#pragma once
#include "Arduino.h"
#include <string>
#include <vector>

#define WL_CONNECTED 3
#define WIFI_STA 1

struct Address {
  std::string toString() const { return "192.0.2.7"; }
};
// When the network is there, from and until which millisecond; when somebody asks, and for what: "from:until;at:/path;at:/path".
struct Ask { uint32_t at; std::string line; bool taken = false; };
struct World {
  uint32_t from = 0, until = 0xffffffff;
  std::vector<Ask> asks;
  World() {
    const char *told = getenv("NETWORK");
    std::string text = told ? told : "0:4000000000";
    sscanf(text.c_str(), "%u:%u", &from, &until);
    for (size_t k = text.find(';'); k != std::string::npos; k = text.find(';', k + 1)) {
      size_t colon = text.find(':', k);
      size_t end = text.find(';', k + 1);
      std::string path = text.substr(colon + 1, (end == std::string::npos ? text.size() : end) - colon - 1);
      asks.push_back({(uint32_t)atoi(text.c_str() + k + 1), path.empty() ? "" : "GET " + path + " HTTP/1.1\r\nHost: x\r\n\r\n"});
    }
  }
};
inline World &world() { static World w; return w; }

struct WiFiClient {
  Ask *who = nullptr;
  size_t n = 0;
  explicit operator bool() const { return who != nullptr; }
  int available() { return who ? (int)(who->line.size() - n) : 0; }
  int read() { return who->line[n++]; }
  size_t write(const uint8_t *data, size_t size) {
    std::string text((const char *)data, size);
    for (size_t k; (k = text.find("\r\n")) != std::string::npos;) text.replace(k, 2, "|");
    while (!text.empty() && text.back() == '\n') text.pop_back();
    printf("ANSWER %s\n", text.c_str());
    return size;
  }
  void stop() {
    if (who) printf("STOP\n");
    who = nullptr;
  }
};
struct WiFiServer {
  WiFiServer(uint16_t port) { (void)port; }
  void begin() {}
  WiFiClient accept() {
    for (Ask &a : world().asks)
      if (!a.taken && clockMs() >= a.at) {
        a.taken = true;
        return {&a, 0};
      }
    return {};
  }
};
struct Radio {
  void mode(int) {}
  void begin(const char *name, const char *password) { printf("CONNECT %s %s\n", name, password); }
  int status() { return clockMs() >= world().from && clockMs() < world().until ? WL_CONNECTED : 6; }
  Address localIP() { return {}; }
};
static Radio WiFi;
