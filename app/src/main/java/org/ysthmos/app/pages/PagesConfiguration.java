package org.ysthmos.app.pages;

import io.swagger.v3.oas.models.OpenAPI;
import io.swagger.v3.oas.models.info.Info;
import io.swagger.v3.oas.models.media.Schema;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.springdoc.core.customizers.OpenApiCustomizer;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.web.servlet.config.annotation.ViewControllerRegistry;
import org.springframework.web.servlet.config.annotation.WebMvcConfigurer;

/** The screens are one page; its own addresses all give that page. */
@Configuration
class PagesConfiguration implements WebMvcConfigurer {

  private static final List<String> PLACES =
      List.of(
          "/",
          "/watch",
          "/to-come",
          "/incidents",
          "/incidents/{id}",
          "/alarms",
          "/recalls",
          "/recalls/{id}",
          "/bridges",
          "/bridges/{id}",
          "/bridges/{id}/desk",
          "/bridges/{id}/full-check",
          "/bridges/{id}/rehearsal",
          "/bridges/{id}/copies",
          "/bridges/{id}/places",
          "/traces",
          "/traces/{id}",
          "/pairs",
          "/systems",
          "/systems/new",
          "/systems/{id}/document",
          "/where",
          "/hangs-on",
          "/tables",
          "/tables/{id}",
          "/calendars/{id}");

  @Override
  public void addViewControllers(ViewControllerRegistry registry) {
    PLACES.forEach(place -> registry.addViewController(place).setViewName("forward:/index.html"));
  }

  @Bean
  OpenAPI description() {
    return new OpenAPI()
        .info(
            new Info()
                .title("Ysthmos")
                .version("1")
                .description(
                    "Watching, tracing and changing bridges. Errors are RFC 9457 problem details."
                        + " GET /api/live tells of changes as server-sent events."));
  }

  /** Every property is there in every answer; one without a value is null and says so. */
  @Bean
  OpenApiCustomizer everythingIsRequired() {
    return api -> {
      api.setServers(List.of());
      for (Object schema : api.getComponents().getSchemas().values()) {
        Map<String, ?> properties = ((Schema<?>) schema).getProperties();
        if (properties != null) {
          ((Schema<?>) schema).setRequired(new ArrayList<>(properties.keySet()));
        }
      }
    };
  }
}
